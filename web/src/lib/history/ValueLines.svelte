<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { dayNumber } from '$lib/text/dates';
  import { text } from '$lib/text/index.svelte';
  import { reveal } from '$lib/record/reveal';
  import { failed } from '$lib/ui/toast';
  import { shown } from './show';
  import { isRestated } from './value';
  import { words } from './words';

  /** Every value a field had, a line a field: where it lies says when it was true, how it is drawn whether it is still believed. */
  let { id, values }: { id: string; values: Api['HistoryValue'][] } = $props();
  const mask = '••••••';
  let open = $state<Record<string, string>>({});
  const w = $derived(words());
  const lines = $derived.by(() => {
    const byField: Record<string, Api['HistoryValue'][]> = {};
    for (const value of values) (byField[value.field] ??= []).push(value);
    // What changed comes first.
    return Object.values(byField).sort((a, b) => Number(b.length > 1) - Number(a.length > 1));
  });
  const today = $derived(dayNumber(session.today));
  const first = $derived(Math.min(today - 30, ...values.map((v) => dayNumber(v.from))));
  const last = $derived(Math.max(today + 60, ...values.map((v) => dayNumber(v.to ?? v.from) + 30)));
  const at = (day: number) => (100 * (day - first)) / (last - first);
  const when = (v: Api['HistoryValue']) =>
    (v.to ? w.until(text.day(v.from), text.day(v.to)) : w.from(text.day(v.from))) +
    (v.knownTo ? `, ${w.believedUntil(text.day(v.knownTo.slice(0, 10)))}` : v.from > session.today ? `, ${w.coming}` : '');

  async function show(value: Api['HistoryValue']) {
    try {
      open[value.id] = await reveal(id, value.field, value.id);
    } catch (e) {
      failed(text.failure(e));
    }
  }
</script>

<ul>
  {#each lines as line (line[0]!.field)}
    <li class="border-rule grid grid-cols-1 gap-x-5 border-b py-1.5 md:grid-cols-[11rem_minmax(0,1fr)_minmax(0,22rem)]">
      <strong class="font-semibold">{line[0]!.label[text.language]}</strong>
      <svg viewBox="0 0 100 12" preserveAspectRatio="none" class="h-3 w-full self-center" aria-hidden="true">
        {#each line as value (`${value.changeId} ${value.from} ${value.knownFrom}`)}
          {@const x = at(dayNumber(value.from))}
          {@const end = value.to ? at(dayNumber(value.to) + 1) : 100}
          {#if value.knownTo}
            <line
              x1={x}
              x2={end}
              y1="10"
              y2="10"
              class="stroke-faint"
              stroke-width="1"
              stroke-dasharray="1.5 1"
              vector-effect="non-scaling-stroke"
            />
          {:else}
            <rect
              {x}
              y="3"
              width={Math.max(0.4, end - x - 0.3)}
              height="5"
              class={value.from > session.today ? 'fill-sea-tint' : 'fill-sea'}
            />
          {/if}
        {/each}
        <line x1={at(today)} x2={at(today)} y1="0" y2="12" class="stroke-rust" stroke-width="1.5" vector-effect="non-scaling-stroke" />
      </svg>
      <ul class="text-xs">
        {#each line.filter((v) => !isRestated(v, line)) as value (`${value.changeId} ${value.from} ${value.knownFrom}`)}
          <li class={value.knownTo ? 'text-soft' : ''}>
            <bdi class={value.knownTo ? 'line-through' : 'font-semibold'}>{open[value.id] ?? shown(value, w.nothing)}</bdi>
            {#if value.value === mask && !(value.id in open)}
              <button type="button" class="link text-xs" onclick={() => show(value)}>{text.t.common.show}</button>
            {/if}
            <span class="text-soft">{when(value)}</span>
          </li>
        {/each}
      </ul>
    </li>
  {/each}
</ul>

<script lang="ts">
  import { api, data, type Api } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { dayNumber, isoDay } from '$lib/text/dates';
  import { text } from '$lib/text/index.svelte';
  import DateField from '$lib/ui/DateField.svelte';
  import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
  import { shown } from './show';
  import { words } from './words';
  import { recordKeys } from '$lib/record/queries';

  /** Two states of a record side by side, with only what differs: each is what was true on a day, as known on a day. */
  let { id, start, values }: { id: string; start: string; values: Api['HistoryValue'][] } = $props();
  const w = $derived(words());
  let on = $state<string | null>(null);
  let known = $state<string | null>(null);
  let withDay = $state<string | null>(null);
  let withKnown = $state<string | null>(null);
  // Something worth comparing, the earlier first: the day before the last change took effect, and today or the first day.
  const last = $derived(session.today > start ? session.today : start);
  const took = $derived(
    values
      .map((v) => v.from)
      .filter((day) => day > start && day <= last)
      .sort()
      .at(-1)
  );
  const first = $derived(on ?? (took ? isoDay(dayNumber(took) - 1) : start < last ? start : last));
  const second = $derived(withDay ?? last);
  const compared = createQuery(() => ({
    queryKey: recordKeys.compare(id, first, known, second, withKnown),
    queryFn: () =>
      data(
        api.GET('/api/records/{id}/compare', {
          params: {
            path: { id },
            query: { on: first, known: known ?? undefined, with: second, withKnown: withKnown ?? undefined }
          }
        })
      ),
    placeholderData: keepPreviousData
  }));
</script>

<div class="grid grid-cols-2 gap-x-5 md:grid-cols-4">
  <DateField id="compare-on" label={w.on} value={first} onchange={(v) => (on = v)} />
  <DateField id="compare-known" label={w.known} bind:value={known} note={w.knownNow} />
  <DateField id="compare-with" label={w.with} value={second} onchange={(v) => (withDay = v)} />
  <DateField id="compare-with-known" label={w.known} bind:value={withKnown} note={w.knownNow} />
</div>
{#if compared.error}<p role="alert" class="text-rust">{text.failure(compared.error)}</p>{/if}
{#if compared.data?.length === 0}<p class="text-soft py-2">{w.same}</p>{/if}
{#if compared.data && compared.data.length > 0}
  <table class="w-full text-left">
    <thead class="text-soft border-ink border-b text-xs">
      <tr
        ><th class="w-1/3 py-1 font-normal">{w.field}</th><th class="w-1/3 font-normal">{text.day(first)}</th><th class="font-normal"
          >{text.day(second)}</th
        ></tr
      >
    </thead>
    <tbody>
      {#each compared.data as row (row.field)}
        <tr class="border-rule border-b">
          <th scope="row" class="py-1 pr-3 font-semibold">{row.label[text.language]}</th>
          <td class="pr-3"><bdi>{shown(row.before, w.nothing)}</bdi></td>
          <td><bdi>{shown(row.after, w.nothing)}</bdi></td>
        </tr>
      {/each}
    </tbody>
  </table>
{/if}

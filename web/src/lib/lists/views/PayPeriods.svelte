<script lang="ts">
  import { api, data } from '$lib/api/client';
  import { dayNumber } from '$lib/text/dates';
  import { text } from '$lib/text/index.svelte';
  import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
  import type { EntryEditing } from '../editing.svelte';
  import { words } from '../words';
  import { listKeys } from '$lib/lists/queries';

  /** The next twelve periods as they will be: the period a band, the cut-off a tick, pay day a flag. */
  let { editing }: { editing: EntryEditing } = $props();
  const w = $derived(words());
  const request = $derived(JSON.stringify(editing.request));
  const shown = createQuery(() => ({
    queryKey: listKeys.preview('periods', request),
    queryFn: () => data(api.POST('/api/lists/payGroups/periods', { body: JSON.parse(request) })),
    placeholderData: keepPreviousData,
    retry: false
  }));
  const runs = $derived(shown.data?.periods ?? []);
  // Each line has its own scale of days, from the period's first to the last of period and pay day; all are equally long.
  const span = $derived(
    Math.max(
      14,
      ...runs.map((r) => Math.max(dayNumber(r.payDate), dayNumber(r.end), dayNumber(r.wanted ?? r.end)) - dayNumber(r.start) + 1)
    )
  );
  const at = (start: string, iso: string) => (100 * (dayNumber(iso) - dayNumber(start))) / span;
</script>

<section>
  <h2 class="text-base">{w.periods.title}</h2>
  {#if shown.error}<p class="text-ochre py-1 text-xs font-semibold">{text.failure(shown.error)}</p>{/if}
  <!-- svelte-ignore a11y_no_noninteractive_tabindex (it scrolls on narrow screens, so it must be reachable) -->
  <div class="overflow-x-auto" tabindex="0" role="region" aria-label={w.periods.title}>
    <table class="narrow w-full text-left text-xs">
      <thead class="text-soft"
        ><tr
          ><th class="py-1 pr-3 font-normal">{w.periods.period}</th><th class="w-[34%] font-normal"
            ><span class="sr-only">{w.periods.title}</span></th
          ><th class="px-2 font-normal">{w.periods.cutOff}</th><th class="font-normal">{w.periods.payDay}</th></tr
        ></thead
      >
      <tbody>
        {#each runs as run (run.start)}
          <tr class="border-rule border-t align-top">
            <td class="py-1.5 pr-3 whitespace-nowrap">{text.shortDay(run.start)} – {text.shortDay(run.end)}</td>
            <td class="py-1.5">
              <svg viewBox="0 0 100 14" preserveAspectRatio="none" class="h-3.5 w-full" aria-hidden="true">
                <rect x="0" y="4" width={at(run.start, run.end) + 100 / span} height="6" class="fill-sea-tint" />
                <rect x={at(run.start, run.cutOff)} y="2" width=".8" height="10" class="fill-ochre" />
                <path d="M{at(run.start, run.payDate)} 0 h5 v6 h-4.2 v8 h-.8 z" class="fill-sea" />
                {#if run.wanted}<rect x={at(run.start, run.wanted)} y="2" width=".5" height="10" class="fill-faint" />{/if}
              </svg>
            </td>
            <td class="px-2 py-1.5 whitespace-nowrap"
              >{text.day(run.cutOff)}{#if run.holidayBefore}<br /><span class="text-ochre">{w.periods.earlier(run.holidayBefore)}</span
                >{/if}</td
            >
            <td class="py-1.5"
              ><strong class="whitespace-nowrap">{text.day(run.payDate)}</strong>{#if run.wanted}<br /><span
                  class={run.holiday ? 'text-ochre' : 'text-soft'}
                  >{w.periods.moved(text.shortDay(run.wanted))}{run.holiday ? ` ${w.periods.forHoliday(run.holiday)}` : ''}</span
                >{/if}</td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
</section>

<script lang="ts">
  import { api, data } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { dateFormat } from '$lib/text/formats';
  import { text } from '$lib/text/index.svelte';
  import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
  import type { EntryEditing } from '../editing.svelte';
  import { words } from '../words';
  import { listKeys } from '$lib/lists/queries';

  /** A year of the calendar as it is being edited: rest days shaded, own holidays filled, inherited ones ringed. */
  let { editing }: { editing: EntryEditing } = $props();
  const w = $derived(words());
  let year = $state(Number(session.today.slice(0, 4)));
  const request = $derived(JSON.stringify(editing.request));
  const shown = createQuery(() => ({
    queryKey: listKeys.preview('calendar', year, request),
    queryFn: () => data(api.POST('/api/lists/calendars/year', { params: { query: { year } }, body: JSON.parse(request) })),
    placeholderData: keepPreviousData,
    retry: false
  }));
  const days = $derived(new Map((shown.data?.days ?? []).map((d) => [d.date, d])));
  const rest = $derived(shown.data?.rest ?? '0000011');
  const months = $derived(
    Array.from({ length: 12 }, (_, m) => ({
      name: dateFormat(text.t.locale, { month: 'short', timeZone: 'UTC' }).format(Date.UTC(year, m, 1)),
      lead: (new Date(Date.UTC(year, m, 1)).getUTCDay() + 6) % 7,
      days: Array.from({ length: new Date(Date.UTC(year, m + 1, 0)).getUTCDate() }, (_, d) => {
        const iso = `${year}-${String(m + 1).padStart(2, '0')}-${String(d + 1).padStart(2, '0')}`;
        return { n: d + 1, iso, rest: rest[(new Date(iso).getUTCDay() + 6) % 7] === '1', off: days.get(iso) };
      })
    }))
  );
</script>

<section aria-label={w.year.title(year)}>
  <div class="flex items-baseline justify-between gap-3">
    <h2 class="text-base">{w.year.title(year)}</h2>
    <span class="flex gap-3">
      <button type="button" class="link px-1" aria-label={w.year.before} onclick={() => year--}>←</button>
      <button type="button" class="link px-1" aria-label={w.year.after} onclick={() => year++}>→</button>
    </span>
  </div>
  {#if shown.data}<p class="text-soft text-xs">{w.year.sum(shown.data.workingDays, shown.data.days.length)}</p>{/if}
  <div class="mt-2 grid grid-cols-2 gap-x-5 gap-y-3 sm:grid-cols-3" aria-hidden="true">
    {#each months as month (month.name)}
      <div>
        <p class="text-2xs font-bold">{month.name}</p>
        <div class="grid grid-cols-7 gap-px text-center text-[0.6rem] leading-[1.15rem]">
          {#each { length: month.lead }, i (i)}<span></span>{/each}
          {#each month.days as day (day.iso)}
            <span
              title={day.off?.name}
              class={day.off && !day.off.from
                ? 'bg-sea text-on-sea font-bold'
                : day.off
                  ? 'border-sea text-sea border font-bold'
                  : day.rest
                    ? 'bg-weekend text-faint'
                    : ''}>{day.n}</span
            >
          {/each}
        </div>
      </div>
    {/each}
  </div>
  <ol class="mt-3 text-xs">
    {#each shown.data?.days ?? [] as day (day.date + day.name)}
      <li class="border-rule flex justify-between gap-3 border-b py-0.5">
        <span>{text.day(day.date)}</span><span class="min-w-0 truncate"
          >{day.name}{day.from ? ' ' : ''}<span class="text-soft">{day.from ? w.year.from(day.from) : ''}</span></span
        >
      </li>
    {/each}
  </ol>
</section>

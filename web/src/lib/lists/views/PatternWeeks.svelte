<script lang="ts">
  import { api, data } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { text } from '$lib/text/index.svelte';
  import DateField from '$lib/ui/DateField.svelte';
  import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
  import type { EntryEditing } from '../editing.svelte';
  import ListPicker from '../ListPicker.svelte';
  import { shiftLook, type Shift } from '../parts/shift';
  import { words } from '../words';
  import { listKeys } from '$lib/lists/queries';

  /** Eight weeks of the pattern as it is being edited, on a holiday calendar, with the paid hours of each. */
  let { editing }: { editing: EntryEditing } = $props();
  const w = $derived(words());
  let from = $state<string | null>(session.today);
  let calendar = $state('');
  const request = $derived(JSON.stringify(editing.request));
  const shown = createQuery(() => ({
    queryKey: listKeys.preview('weeks', request, from, calendar),
    queryFn: () =>
      data(
        api.POST('/api/lists/shiftPatterns/weeks', {
          params: { query: { from: from ?? undefined, calendar: calendar || undefined } },
          body: JSON.parse(request)
        })
      ),
    placeholderData: keepPreviousData,
    retry: false
  }));
  const shifts = $derived((editing.values.shifts ?? []) as Shift[]);
</script>

<section>
  <h2 class="text-base">{w.weeks.title}</h2>
  <div class="grid grid-cols-2 gap-x-5">
    <ListPicker id="weeks-calendar" label={w.weeks.calendar} list="calendars" bind:value={calendar} />
    <DateField id="weeks-from" label={w.weeks.from} bind:value={from} />
  </div>
  {#if shown.error}<p class="text-ochre py-1 text-xs font-semibold">{text.failure(shown.error)}</p>{/if}
  <!-- svelte-ignore a11y_no_noninteractive_tabindex (it scrolls on narrow screens, so it must be reachable) -->
  <div class="overflow-x-auto" tabindex="0" role="region" aria-label={w.weeks.title}>
    <table class="narrow w-full min-w-80 table-fixed text-center text-xs">
      <thead class="text-soft"
        ><tr
          ><th class="w-14 font-normal"><span class="sr-only">{w.weeks.from}</span></th>{#each w.rest.days as day (day)}<th
              class="py-1 font-normal">{day}</th
            >{/each}<th class="w-20 font-normal"><span class="sr-only">{w.weeks.hours('')}</span></th></tr
        ></thead
      >
      <tbody>
        {#each shown.data?.weeks ?? [] as week (week.start)}
          <tr class="border-rule border-t">
            <th scope="row" class="py-1 pr-2 text-left font-normal whitespace-nowrap">{text.shortDay(week.start)}</th>
            {#each week.days as day (day.date)}
              <td class="p-px"
                ><span
                  title={day.holiday ?? undefined}
                  class="block min-h-6 leading-6 font-bold {shiftLook(day.shift, shifts)} {day.holiday
                    ? 'outline-ochre outline-2 -outline-offset-2'
                    : ''}"
                  >{day.shift ?? '·'}{#if day.holiday}<span class="sr-only"> {w.weeks.holiday}: {day.holiday}</span>{/if}</span
                ></td
              >
            {/each}
            <td class="py-1 pl-2 text-right {week.tooLong ? 'text-rust font-bold' : ''}"
              >{w.weeks.hours(text.hours(week.paidMinutes))}{#if week.tooLong}<br /><span class="text-2xs"
                  >{w.weeks.tooLong(text.number(shown.data!.mostHours))}</span
                >{/if}</td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
</section>

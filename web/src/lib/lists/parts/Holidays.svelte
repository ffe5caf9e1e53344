<script lang="ts">
  import { session } from '$lib/api/session.svelte';
  import { dateFormat } from '$lib/text/formats';
  import { text } from '$lib/text/index.svelte';
  import { words } from '../words';
  import Day from './Day.svelte';
  import { kindOf, partsOf, ruleOf, weekdays, type Holiday, type Kind, type RuleParts } from './holiday';
  import Lines from './Lines.svelte';
  import type { PartProps } from './part';
  import Select from './Select.svelte';
  import UnlabelledInput from './UnlabelledInput.svelte';

  /** Holidays of a calendar: dated, every year on a day, a weekday of a month, or so many days from Easter. */
  let { id, label, note, error, value, onchange }: PartProps<Holiday[]> = $props();
  const w = $derived(words());
  const kinds = $derived(Object.entries(w.holidays.kinds).map(([v, l]) => ({ value: v, label: l })));
  const months = $derived(
    Array.from({ length: 12 }, (_, i) => ({
      value: String(i + 1),
      label: dateFormat(text.t.locale, { month: 'long', timeZone: 'UTC' }).format(Date.UTC(2027, i, 1))
    }))
  );
  const nths = $derived(['1', '2', '3', '4', '5', '-1'].map((v) => ({ value: v, label: w.holidays.nths[v]! })));
  const days = $derived(weekdays.map((v, i) => ({ value: v, label: w.rest.days[i]! })));

  const turn = (on: string, kind: Kind, part: Partial<RuleParts>) => ruleOf(kind, { ...partsOf(on, session.today), ...part });
</script>

<Lines
  {id}
  {label}
  {note}
  {error}
  items={value ?? []}
  heads={[w.holidays.name, w.holidays.kind, '', w.holidays.lasts]}
  grid="grid-cols-1 sm:grid-cols-[1fr_11rem_15rem_4rem_2rem]"
  addLabel={w.holidays.add}
  blank={() => ({ on: session.today, name: '', days: 1 })}
  {onchange}
>
  {#snippet line(holiday, set)}
    {@const kind = kindOf(holiday.on)}
    {@const parts = partsOf(holiday.on, session.today)}
    <UnlabelledInput label={w.holidays.name} value={holiday.name} maxlength={200} onchange={(e) => set({ name: e.currentTarget.value })} />
    <Select label={w.holidays.kind} value={kind} choices={kinds} onchange={(k) => set({ on: turn(holiday.on, k as Kind, {}) })} />
    <span class="flex gap-2">
      {#if kind === 'once'}
        <Day label={w.holidays.date} value={parts.date} onchange={(date) => set({ on: date })} />
      {:else if kind === 'easter'}
        <UnlabelledInput
          label={w.holidays.easterDays}
          type="number"
          min={-80}
          max={100}
          value={parts.easter}
          onchange={(e) => set({ on: turn(holiday.on, kind, { easter: e.currentTarget.valueAsNumber || 0 }) })}
        />
      {:else}
        {#if kind === 'yearly'}
          <UnlabelledInput
            label={w.holidays.day}
            type="number"
            min={1}
            max={31}
            value={parts.day}
            onchange={(e) => set({ on: turn(holiday.on, kind, { day: e.currentTarget.valueAsNumber || 1 }) })}
          />
        {:else}
          <Select
            label={w.holidays.nth}
            value={parts.nth}
            choices={nths}
            onchange={(nth) => set({ on: turn(holiday.on, kind, { nth }) })}
          />
          <Select
            label={w.holidays.weekday}
            value={parts.weekday}
            choices={days}
            onchange={(weekday) => set({ on: turn(holiday.on, kind, { weekday }) })}
          />
        {/if}
        <Select
          label={w.holidays.month}
          value={String(parts.month)}
          choices={months}
          onchange={(m) => set({ on: turn(holiday.on, kind, { month: Number(m) }) })}
        />
      {/if}
    </span>
    <UnlabelledInput
      label={w.holidays.lasts}
      type="number"
      min={1}
      max={60}
      value={holiday.days}
      onchange={(e) => set({ days: e.currentTarget.valueAsNumber || 1 })}
    />
  {/snippet}
</Lines>

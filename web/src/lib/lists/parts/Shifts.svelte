<script lang="ts">
  import { words } from '../words';
  import Lines from './Lines.svelte';
  import type { PartProps } from './part';
  import { clockTime, type Shift } from './shift';
  import UnlabelledInput from './UnlabelledInput.svelte';

  /** The shifts of a pattern: a letter, from, to, and the minutes that are not paid. */
  let { id, label, note, error, value, onchange }: PartProps<Shift[]> = $props();
  const w = $derived(words());
  const next = () => 'DELNSABCFGHJKMPQRTUVWXYZ'.split('').find((l) => !(value ?? []).some((s) => s.letter === l)) ?? '';
</script>

<Lines
  {id}
  {label}
  {note}
  {error}
  items={value ?? []}
  heads={[w.shifts.letter, w.shifts.start, w.shifts.end, w.shifts.break]}
  grid="grid-cols-2 sm:grid-cols-[4rem_1fr_1fr_6rem_5rem_3rem]"
  addLabel={w.shifts.add}
  blank={() => ({ letter: next(), start: '09:00', end: '17:00', break: 30 })}
  {onchange}
>
  {#snippet line(shift, set)}
    <UnlabelledInput
      label={w.shifts.letter}
      value={shift.letter}
      maxlength={3}
      onchange={(e) => set({ letter: e.currentTarget.value.trim() })}
    />
    <UnlabelledInput
      label={w.shifts.start}
      inputmode="numeric"
      placeholder="06:00"
      value={shift.start}
      onchange={(e) => set({ start: clockTime(e.currentTarget.value) })}
    />
    <UnlabelledInput
      label={w.shifts.end}
      inputmode="numeric"
      placeholder="06:00"
      value={shift.end}
      onchange={(e) => set({ end: clockTime(e.currentTarget.value) })}
    />
    <UnlabelledInput
      label={w.shifts.break}
      type="number"
      min={0}
      max={1439}
      value={shift.break}
      onchange={(e) => set({ break: e.currentTarget.valueAsNumber || 0 })}
    />
    <span class="text-faint text-2xs">{shift.end <= shift.start ? w.shifts.nextDay : ''}</span>
  {/snippet}
</Lines>

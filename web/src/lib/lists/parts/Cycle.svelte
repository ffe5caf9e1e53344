<script lang="ts">
  import { tick } from 'svelte';
  import { words } from '../words';
  import type { PartProps } from './part';
  import { shiftLook, type Shift } from './shift';

  /** A cycle painted day by day: with the mouse by dragging, or by typing letters along it. */
  let { id, label, error, value, onchange, shifts }: PartProps<string> & { shifts: Shift[] } = $props();
  const w = $derived(words());
  const LONGEST = 366;
  const days = $derived((value ?? '').split(' ').filter((d) => d !== ''));
  const letters = $derived([...shifts.map((s) => s.letter), '-']);
  let brush = $state<string>();
  const paint = $derived(brush !== undefined && letters.includes(brush) ? brush : letters[0]!);
  let painting = $state(false);
  let focused = $state(0);

  const set = (i: number, letter: string) => {
    if (days[i] !== letter) onchange(days.map((d, k) => (k === i ? letter : d)).join(' '));
  };
  const longer = () => days.length < LONGEST && onchange([...days, paint].join(' '));
  const shorter = () => days.length > 1 && onchange(days.slice(0, -1).join(' '));
  function focusDay(i: number) {
    focused = Math.max(0, Math.min(days.length - 1, i));
    document.getElementById(`${id}-${focused}`)?.focus();
  }
  function key(event: KeyboardEvent, i: number) {
    const letter = letters.find((l) => l.toUpperCase() === event.key.toUpperCase());
    const to = { ArrowRight: i + 1, ArrowLeft: i - 1, ArrowDown: i + 7, ArrowUp: i - 7, Home: 0, End: days.length - 1 }[event.key];
    if (to !== undefined) focusDay(to);
    else if (event.key === ' ' || event.key === 'Enter') set(i, paint);
    else if (letter !== undefined && !event.ctrlKey && !event.metaKey && !event.altKey) {
      set(i, letter);
      if (i === days.length - 1) longer();
      void tick().then(() => focusDay(i + 1));
    } else return;
    event.preventDefault();
    event.stopPropagation();
  }
</script>

<svelte:window onpointerup={() => (painting = false)} />

<fieldset {id} class="col-span-full min-w-0">
  <legend class="text-soft text-xs">{label}</legend>
  <div class="flex flex-wrap items-center gap-2 py-1.5" role="group" aria-label={w.cycle.paint}>
    {#each letters as letter (letter)}
      <button
        type="button"
        aria-pressed={paint === letter}
        class="min-h-8 min-w-9 rounded border px-2 text-xs font-bold {paint === letter
          ? 'border-ink outline-sea outline-2'
          : 'border-rule'} {shiftLook(letter, shifts)}"
        onclick={() => (brush = letter)}>{letter === '-' ? w.shifts.off : letter}</button
      >
    {/each}
  </div>
  <div class="flex flex-wrap gap-px" role="grid" aria-label={label} tabindex="-1">
    <div role="row" class="flex flex-wrap gap-px">
      {#each days as day, i (i)}
        <button
          type="button"
          role="gridcell"
          id="{id}-{i}"
          tabindex={i === Math.min(focused, days.length - 1) ? 0 : -1}
          aria-label={w.cycle.day(i + 1, day === '-' ? w.shifts.off : day)}
          class="border-rule size-9 touch-none border text-xs font-bold {shiftLook(day, shifts)} {i % 7 === 0 && i > 0 ? 'ml-2' : ''}"
          onpointerdown={(e) => {
            painting = true;
            e.currentTarget.releasePointerCapture(e.pointerId);
            set(i, paint);
            focused = i;
          }}
          onpointerenter={() => painting && set(i, paint)}
          onkeydown={(e) => key(e, i)}>{day === '-' ? '·' : day}</button
        >
      {/each}
    </div>
  </div>
  <p class="flex gap-4 pt-1.5 text-xs font-semibold">
    <button type="button" class="link" onclick={longer}>{w.cycle.longer}</button>
    <button type="button" class="link" onclick={shorter}>{w.cycle.shorter}</button>
  </p>
  <p class="text-2xs min-h-4 {error ? 'text-rust font-semibold' : 'text-faint'}">{error ?? w.cycle.hint}</p>
</fieldset>

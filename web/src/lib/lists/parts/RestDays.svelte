<script lang="ts">
  import { words } from '../words';
  import type { PartProps } from './part';

  /** The days of the week on which nobody works. */
  let { id, label, error, value, onchange }: PartProps<string> = $props();
  const w = $derived(words());
  const mask = $derived((value ?? '0000011').padEnd(7, '0'));
  const toggle = (i: number) => onchange([...mask].map((c, k) => (k === i ? (c === '1' ? '0' : '1') : c)).join(''));
</script>

<fieldset {id} class="min-w-0">
  <legend class="text-soft text-xs">{label}</legend>
  <div class="flex flex-wrap pt-1">
    {#each w.rest.days as day, i (day)}
      <button
        type="button"
        aria-pressed={mask[i] === '1'}
        class="border-ink min-h-8 border-y border-l px-2 text-xs font-semibold last:border-r {mask[i] === '1' ? 'bg-ink text-paper' : ''}"
        onclick={() => toggle(i)}>{day}</button
      >
    {/each}
  </div>
  <p class="text-2xs text-rust min-h-4 font-semibold">{error ?? ''}</p>
</fieldset>

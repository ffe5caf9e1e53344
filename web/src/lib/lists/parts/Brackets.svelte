<script lang="ts">
  import { words } from '../words';
  import Lines from './Lines.svelte';
  import Number from './Number.svelte';
  import type { PartProps } from './part';

  /** Slices of pay with a percentage each; the last has no end. */
  interface Bracket {
    percent: unknown;
    upTo?: unknown;
  }
  let { id, label, note, error, value, onchange }: PartProps<Bracket[]> = $props();
  const w = $derived(words());
  const clean = (brackets: Bracket[]) => brackets.map((b) => (b.upTo == null || b.upTo === '' ? { percent: b.percent } : b));
</script>

<Lines
  {id}
  {label}
  {note}
  {error}
  items={value ?? []}
  heads={[w.brackets.percent, w.brackets.upTo]}
  grid="grid-cols-[1fr_1fr_3rem]"
  addLabel={w.brackets.add}
  blank={() => ({ percent: 0 }) as Bracket}
  onchange={(b) => onchange(clean(b))}
>
  {#snippet line(bracket, set)}
    <Number label={w.brackets.percent} value={bracket.percent} onchange={(percent) => set({ percent })} />
    <Number label={w.brackets.upTo} value={bracket.upTo} onchange={(upTo) => set({ upTo })} />
  {/snippet}
</Lines>

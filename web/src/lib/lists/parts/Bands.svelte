<script lang="ts">
  import { session } from '$lib/api/session.svelte';
  import { words } from '../words';
  import Day from './Day.svelte';
  import Lines from './Lines.svelte';
  import Number from './Number.svelte';
  import type { PartProps } from './part';
  import Select from './Select.svelte';

  /** Pay bands, each from a date: drawn to one scale, so that a raise of the band is seen. */
  interface Band {
    from: string;
    min: unknown;
    mid: unknown;
    max: unknown;
    per: string;
  }
  let { id, label, note, error, value, onchange }: PartProps<Band[]> = $props();
  const w = $derived(words());
  const bands = $derived(value ?? []);
  const per = $derived([
    { value: 'year', label: w.band.year },
    { value: 'hour', label: w.band.hour }
  ]);
  const most = $derived(Math.max(1, ...bands.map((b) => (typeof b.max === 'number' ? b.max : 0))));
  const share = (n: unknown) => (typeof n === 'number' ? Math.max(0, (100 * n) / most) : 0);
</script>

<Lines
  {id}
  {label}
  {note}
  {error}
  items={bands}
  heads={[w.from, w.band.min, w.band.mid, w.band.max, w.band.per, '']}
  grid="grid-cols-3 sm:grid-cols-[9rem_1fr_1fr_1fr_6rem_7rem_3rem]"
  addLabel={w.band.add}
  blank={() => ({
    from: session.today,
    min: bands.at(-1)?.min ?? null,
    mid: bands.at(-1)?.mid ?? null,
    max: bands.at(-1)?.max ?? null,
    per: 'year'
  })}
  {onchange}
>
  {#snippet line(band, set)}
    <Day label={w.from} value={band.from} onchange={(from) => set({ from })} />
    <Number label={w.band.min} value={band.min} onchange={(min) => set({ min })} />
    <Number label={w.band.mid} value={band.mid} onchange={(mid) => set({ mid })} />
    <Number label={w.band.max} value={band.max} onchange={(max) => set({ max })} />
    <Select label={w.band.per} value={band.per} choices={per} onchange={(p) => set({ per: p })} />
    <svg viewBox="0 0 100 10" class="h-3 w-full" preserveAspectRatio="none" aria-hidden="true">
      <rect
        x={share(band.min)}
        y="3"
        width={Math.max(0, share(band.max) - share(band.min))}
        height="4"
        class="fill-sea-tint stroke-sea"
        stroke-width=".5"
      />
      <rect x={share(band.mid) - 0.5} y="1" width="1" height="8" class="fill-sea" />
    </svg>
  {/snippet}
</Lines>

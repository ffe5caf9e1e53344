<script lang="ts">
  import { session } from '$lib/api/session.svelte';
  import { words } from '../words';
  import Day from './Day.svelte';
  import Lines from './Lines.svelte';
  import Number from './Number.svelte';
  import type { PartProps } from './part';
  import Select from './Select.svelte';

  /** What a job pays when done as a second one, each from a date. */
  interface Rate {
    from: string;
    how: string;
    value: unknown;
  }
  let { id, label, note, error, value, onchange }: PartProps<Rate[]> = $props();
  const w = $derived(words());
  const how = $derived([
    { value: 'flat', label: w.rates.flat },
    { value: 'percent', label: w.rates.percent },
    { value: 'amount', label: w.rates.amount }
  ]);
</script>

<Lines
  {id}
  {label}
  {note}
  {error}
  items={value ?? []}
  heads={[w.from, w.rates.value, w.rates.how]}
  grid="grid-cols-[9rem_1fr_1fr_3rem]"
  addLabel={w.rates.add}
  blank={() => ({ from: session.today, how: 'percent', value: null })}
  {onchange}
>
  {#snippet line(rate, set)}
    <Day label={w.from} value={rate.from} onchange={(from) => set({ from })} />
    <Number label={w.rates.value} value={rate.value} onchange={(v) => set({ value: v })} />
    <Select label={w.rates.how} value={rate.how} choices={how} onchange={(h) => set({ how: h })} />
  {/snippet}
</Lines>

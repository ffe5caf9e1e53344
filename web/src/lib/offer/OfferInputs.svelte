<script lang="ts">
  import { words as recordWords } from '$lib/record/words';
  import DateField from '$lib/ui/DateField.svelte';
  import Line from '$lib/ui/Line.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { cell, type OfferForm } from './offerForm';
  import { words } from './words';

  /** What a form of an offer says. */
  interface Props {
    form: OfferForm;
    number: number;
    /** What is wrong with a part of the form, by the field of the record it is for. */
    problem: (key: keyof OfferForm, field: string) => string | undefined;
  }
  let { form = $bindable(), number, problem }: Props = $props();
  const w = $derived(words().rows);
  const per = $derived(recordWords().per);
  const id = (of: string) => `offer-${number}-${of}`;
</script>

<div class="grid grid-cols-2 gap-x-4">
  <TextField id={id('rate')} label={w.rate} bind:value={form.rate} inputmode="decimal" maxlength={20} error={problem('rate', 'pay_rate')} />
  <Line id={id('paid-by')} label={w.paidBy} error={problem('paidBy', 'paid_by')}>
    <select
      id={id('paid-by')}
      bind:value={form.paidBy}
      class="w-full bg-transparent py-1 font-medium"
      aria-describedby="{id('paid-by')}-note"
    >
      {#each Object.entries(per) as [value, label] (value)}<option {value}>{label}</option>{/each}
    </select>
  </Line>
  <TextField
    id={id('hours')}
    label={w.hours}
    bind:value={form.hours}
    inputmode="decimal"
    maxlength={20}
    error={problem('hours', 'weekly_hours')}
  />
  <DateField id={id('start')} label={w.start} bind:value={form.start} error={problem('start', 'start')} />
  <TextField
    id={id('allowance')}
    label={w.allowance}
    bind:value={form.allowance}
    inputmode="decimal"
    maxlength={20}
    error={problem('allowance', cell('amount', form.allowanceRow))}
  />
  {#if form.allowance.trim() !== ''}
    <TextField
      id={id('allowance-for')}
      label={w.allowanceFor}
      bind:value={form.allowanceFor}
      maxlength={200}
      error={problem('allowanceFor', cell('note', form.allowanceRow))}
    />
  {/if}
</div>

<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { words } from './words';

  /** How the sheet's dates, numbers and empty cells are understood, where that matters. */
  interface Props {
    run: Api['ImportResponse'];
    list: Api['ImportTargetResponse'];
    match: (change: Partial<Api['MatchingRequest']>) => void;
  }
  let { run, list, match }: Props = $props();
  const w = $derived(words());
  const types = $derived(run.columns.map((c) => list.columns.find((l) => l.key === c)?.type));
  const hasDates = $derived(types.some((t) => t === 'date'));
  const hasNumbers = $derived(types.some((t) => t === 'number' || t === 'whole' || t === 'bands' || t === 'brackets' || t === 'rates'));
</script>

{#snippet choice(label: string, value: string, choices: [string, string][], take: (value: string) => void)}
  <label class="text-soft flex items-baseline gap-2 text-xs"
    >{label}
    <select {value} onchange={(e) => take(e.currentTarget.value)} class="border-rule bg-sheet text-ink min-h-8 border-b font-semibold">
      {#if value === ''}<option value="" disabled></option>{/if}
      {#each choices as [v, l] (v)}<option value={v}>{l}</option>{/each}
    </select></label
  >
{/snippet}

{#if run.askDates}<p role="alert" class="border-ochre bg-ochre-tint text-ochre mb-1 border-l-4 px-4 py-2 font-semibold">
    {w.askDates}
  </p>{/if}
<div class="flex flex-wrap gap-x-8 gap-y-1 pb-1">
  {#if hasDates}
    {@render choice(w.dates, run.dates ?? '', Object.entries(w.dateOrders), (v) => match({ dates: v as Api['DateOrder'] }))}
  {/if}
  {#if hasNumbers}
    {@render choice(
      w.decimal,
      run.decimal,
      [
        ['.', w.point],
        [',', w.comma]
      ],
      (v) => match({ decimal: v })
    )}
  {/if}
  {@render choice(
    w.empty,
    run.emptyClears ? 'yes' : 'no',
    [
      ['no', w.emptyKeeps],
      ['yes', w.emptyClears]
    ],
    (v) => match({ emptyClears: v === 'yes' })
  )}
</div>

<script lang="ts">
  import { api, ApiProblem, data, type Api } from '$lib/api/client';
  import { decimal } from '$lib/text/decimal';
  import { text } from '$lib/text/index.svelte';
  import Picker from '$lib/ui/Picker.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
  import type { EntryEditing } from '../editing.svelte';
  import { listsQuery } from '../queries';
  import { words } from '../words';
  import ComponentEffects from './ComponentEffects.svelte';
  import { listKeys } from '$lib/lists/queries';

  /** What a period comes to for an example person, every line with its working; a loop is named here as it is made. */
  let { editing }: { editing: EntryEditing } = $props();
  const w = $derived(words());
  const lists = listsQuery();
  let every = $state('fortnight');
  let amount = $state('');
  const periods = $derived(
    lists.data
      ?.find((l) => l.key === 'payGroups')
      ?.columns.find((c) => c.key === 'every')
      ?.options?.map((o) => ({ value: o.value, label: o.label[text.language] })) ?? []
  );
  const body = $derived(
    JSON.stringify({
      entry: { ...editing.request, name: editing.name || '…' },
      every,
      amount: decimal(amount) ?? null
    } satisfies { entry: Api['EntryRequest']; every: string; amount: number | null })
  );
  const shown = createQuery(() => ({
    queryKey: listKeys.preview('slip', body),
    queryFn: () => data(api.POST('/api/lists/payComponents/slip', { body: JSON.parse(body) })),
    placeholderData: keepPreviousData,
    retry: false
  }));
  const problems = $derived(shown.error instanceof ApiProblem ? shown.error.errors : []);
</script>

<section aria-label={w.slip.title}>
  <h2 class="text-base">{w.slip.title}</h2>
  <div class="grid grid-cols-2 gap-x-5">
    <Picker id="slip-every" label={w.slip.every} bind:value={every} choices={periods} />
    <TextField
      id="slip-amount"
      label={w.slip.amount}
      bind:value={amount}
      inputmode="decimal"
      autocomplete="off"
      note={shown.data?.base ?? w.slip.noBase}
    />
  </div>
  {#each problems as problem (problem.pointer + problem.code)}<p
      class="border-rust bg-rust-tint text-rust my-1 border-l-4 px-3 py-1.5 text-xs"
      role="alert"
    >
      {text.problem(problem)}
    </p>{/each}
  {#if shown.data && problems.length === 0}
    <table class="w-full text-xs">
      <tbody>
        {#each shown.data.lines as line (line.code)}
          <tr class="border-rule border-t align-top {line.code === editing.code ? 'bg-sea-tint' : ''}">
            <th scope="row" class="py-1.5 pr-3 text-left font-semibold"
              >{line.code}<br /><span class="text-soft font-normal">{line.name}</span></th
            >
            <td class="text-soft py-1.5 pr-3">{line.working}</td>
            <td class="py-1.5 text-right font-semibold whitespace-nowrap"
              >{line.kind === 'deduction' ? '−' : ''}{text.number(line.amount, 2)}</td
            >
          </tr>
        {/each}
        {#each [[w.slip.gross, shown.data.gross], [w.slip.deductions, shown.data.deductions], [w.slip.net, shown.data.net], [w.slip.employer, shown.data.employerCost]] as [label, sum] (label)}
          <tr class="border-ink border-t font-bold"
            ><th scope="row" class="py-1 text-left" colspan="2">{label}</th><td class="text-right">{text.number(sum as number, 2)}</td></tr
          >
        {/each}
      </tbody>
    </table>
  {/if}
</section>
<ComponentEffects {editing} />

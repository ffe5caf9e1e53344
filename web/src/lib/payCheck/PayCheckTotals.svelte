<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import { words } from './words';

  /** What the lines come to, by department and by cost centre; each table adds up to the first line again. */
  let { totals, people, group }: { totals: Api['PayCheckTotals']; people: number; group: string } = $props();
  const w = $derived(words());
  const tables = $derived([
    { title: w.byDepartment, shares: totals.departments },
    { title: w.byCostCentre, shares: totals.costCentres }
  ]);
  const amounts = (of: Api['PayAmounts']) => [of.gross, of.deductions, of.net, of.employerCost];
</script>

<details class="pt-6">
  <summary class="flex min-h-8 cursor-pointer items-center gap-3 font-semibold"
    >{w.totals}<span class="text-soft font-normal">{w.gross} {text.money(totals.all.gross)} · {w.net} {text.money(totals.all.net)}</span
    ></summary
  >
  <div class="grid gap-x-10 lg:grid-cols-2">
    {#each tables.filter((t) => t.shares.length > 0) as table (table.title)}
      <!-- svelte-ignore a11y_no_noninteractive_tabindex (it scrolls on narrow screens, so it must be reachable) -->
      <div class="overflow-x-auto py-3" tabindex="0" role="region" aria-label={table.title}>
        <table class="w-full text-right tabular-nums">
          <thead class="text-soft text-xs">
            <tr class="border-ink border-b">
              <th class="py-1 text-left font-normal">{table.title}</th>
              {#each [w.people, w.gross, w.deductions, w.net, w.cost] as column (column)}<th class="pl-3 font-normal">{column}</th>{/each}
            </tr>
          </thead>
          <tbody>
            {#each table.shares as share (share.code)}
              <tr class="border-rule border-b">
                <th class="py-1 text-left font-normal">{share.name ?? share.code ?? w.without}</th>
                <td class="pl-3">{text.number(share.people)}</td>
                {#each amounts(share.amounts) as amount, i (i)}<td class="pl-3">{text.number(amount, 2)}</td>{/each}
              </tr>
            {/each}
            <tr class="font-semibold">
              <th class="py-1 text-left">{group}</th>
              <td class="pl-3">{text.number(people)}</td>
              {#each amounts(totals.all) as amount, i (i)}<td class="pl-3">{text.number(amount, 2)}</td>{/each}
            </tr>
          </tbody>
        </table>
      </div>
    {/each}
  </div>
</details>

<script lang="ts">
  import { api, ApiProblem, data, type Api } from '$lib/api/client';
  import { listKeys } from '$lib/lists/queries';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import DateField from '$lib/ui/DateField.svelte';
  import { createQuery } from '@tanstack/svelte-query';
  import type { EntryEditing } from '../editing.svelte';
  import { words } from '../words';

  /** Should this change be made: what it does to example people, and to everybody whose pay it touches. Asked for, since it takes a while. */
  let { editing }: { editing: EntryEditing } = $props();
  const w = $derived(words().effects);
  let on = $state<string | null>(null);
  let asked = $state<string>();
  const body = $derived(
    JSON.stringify({ entry: { ...editing.request, name: editing.name || '…' }, on } satisfies Api['ComponentEffectsRequest'])
  );
  const shown = createQuery(() => ({
    queryKey: listKeys.preview('effects', asked),
    queryFn: () => data(api.POST('/api/lists/payComponents/effects', { body: JSON.parse(asked!) })),
    enabled: asked !== undefined,
    retry: false
  }));
  const problems = $derived(shown.error instanceof ApiProblem ? shown.error.errors : []);
  const result = $derived(asked === body ? shown.data : undefined);
  const differs = (before: Api['PeriodSums'] | null, after: Api['PeriodSums'] | null) =>
    before?.net !== after?.net || before?.employerCost !== after?.employerCost;
  const amount = (sums: Api['PeriodSums'] | null, of: 'net' | 'employerCost') => (sums ? text.number(sums[of], 2) : w.none);
  const signed = (n: number) => (n > 0 ? `+${text.number(n, 2)}` : text.number(n, 2));
</script>

{#snippet both(before: Api['PeriodSums'] | null, after: Api['PeriodSums'] | null)}
  {#each ['net', 'employerCost'] as const as of (of)}
    {@const [was, will] = [amount(before, of), amount(after, of)]}
    <td class="py-1 pl-3 text-right whitespace-nowrap">
      {#if was === will}<span class="text-soft">{was}</span>{:else}<span class="text-soft">{was} →</span> <strong>{will}</strong>{/if}
    </td>
  {/each}
{/snippet}

{#snippet head(first: string)}
  <thead class="border-ink text-faint text-2xs border-b">
    <tr>
      <th scope="col" class="py-1 text-left font-normal">{first}</th>
      <th scope="col" class="py-1 pl-3 text-right font-normal">{w.net}</th>
      <th scope="col" class="py-1 pl-3 text-right font-normal">{w.cost}</th>
    </tr>
  </thead>
{/snippet}

<section aria-label={w.title} class="border-rule mt-6 border-t pt-4">
  <h2 class="text-base">{w.title}</h2>
  <div class="flex flex-wrap items-end gap-x-5 gap-y-2">
    <div class="min-w-40 flex-1"><DateField id="effects-on" label={w.on} bind:value={on} note={w.onNote} /></div>
    <div class="pb-5"><Button disabled={shown.isFetching} onclick={() => (asked = body)}>{w.compare}</Button></div>
  </div>
  {#if asked !== body}{#if asked !== undefined}<p class="text-soft text-xs">{w.changed}</p>{/if}
  {:else}
    {#each problems as problem (problem.pointer + problem.code)}<p
        class="border-rust bg-rust-tint text-rust my-1 border-l-4 px-3 py-1.5 text-xs"
        role="alert"
      >
        {text.problem(problem)}
      </p>{/each}
  {/if}
  {#if result}
    {#if result.people}
      {@const people = result.people}
      <p class="pt-1 font-semibold" role="status">{w.touches(people.touched, people.considered)}</p>
      {#if people.touched > 0}<p class="text-soft text-xs">{w.sums(signed(people.annualNet), signed(people.annualCost))}</p>{/if}
      {#if people.notWorkedOut > 0}<p class="text-rust text-xs font-semibold">{w.lost(people.notWorkedOut)}</p>{/if}
    {/if}
    <div class="overflow-x-auto">
      <table class="w-full text-xs">
        <caption class="text-soft pt-3 pb-1 text-left">{w.samples}</caption>
        {@render head(w.basePay)}
        <tbody>
          {#each result.samples as s (s.payGroup + s.amount)}
            <tr class="border-rule border-b {differs(s.before, s.after) ? 'bg-sea-tint' : ''}">
              <th scope="row" class="py-1 text-left font-normal"><strong>{text.number(s.amount, 2)}</strong> {s.payGroup}</th>
              {@render both(s.before, s.after)}
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
    {#if result.people && result.people.first.length > 0}
      <div class="overflow-x-auto">
        <table class="w-full text-xs">
          <caption class="text-soft pt-3 pb-1 text-left">{w.people(result.people.first.length, result.people.touched)}</caption>
          {@render head(w.who)}
          <tbody>
            {#each result.people.first as p (p.employmentId)}
              <tr class="border-rule border-b">
                <th scope="row" class="py-1 text-left font-normal"
                  ><a class="link font-semibold" href="/people/{p.employmentId}">{p.name}</a> {p.payGroup}</th
                >
                {@render both(p.before, p.after)}
              </tr>
            {/each}
          </tbody>
        </table>
      </div>
    {/if}
  {/if}
</section>

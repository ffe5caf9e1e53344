<script lang="ts">
  import { goto } from '$app/navigation';
  import { api, ApiProblem, data, type Api } from '$lib/api/client';
  import { fieldTitle } from '$lib/text/fieldLabels.svelte';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { done } from '$lib/ui/toast';
  import { createMutation, useQueryClient } from '@tanstack/svelte-query';
  import { goOn } from './goOn';
  import { occasionWords } from '$lib/occasions/words';
  import { words } from './words';
  import { hireKeys } from './queries';

  /** A hire that comes to nothing, or later: withdrawn, no show, postponed; with a reason, and what is to be returned. */
  interface Props {
    open: boolean;
    id: string;
    name: string;
    occasion: Api['Occasion'];
    employmentId: string;
    start: string;
    onmove: () => void;
  }
  let { open = $bindable(), id, name, occasion, employmentId, start, onmove }: Props = $props();
  const client = useQueryClient();
  const w = $derived(words());
  const o = $derived(occasionWords(occasion).end);
  let outcome = $state<'withdrawn' | 'noShow' | 'postponed'>('withdrawn');
  let why = $state('');
  let error = $state('');
  let closed = $state<Api['OutcomeResponse']>();

  // Only who was to arrive can fail to come.
  const outcomes = $derived(
    occasion === 'arrival' ? (['withdrawn', 'noShow', 'postponed'] as const) : (['withdrawn', 'postponed'] as const)
  );
  const leave = () => void goto(occasion === 'arrival' ? '/arrivals' : `/people/${employmentId}`);

  async function back() {
    closed = undefined;
    why = '';
    open = false;
    await goOn(id, occasion, client);
  }
  const acting = createMutation(() => ({
    mutationFn: async (how: 'withdrawn' | 'noShow') => {
      closed = await data(api.PUT('/api/hires/{id}/outcome', { params: { path: { id } }, body: { outcome: how, why } }));
      done(o.done(name), { label: w.outcome.undo, run: back });
      await client.invalidateQueries({ queryKey: hireKeys.arrivals });
    },
    onError: (e) => {
      error = e instanceof ApiProblem && e.errors[0] ? (text.problem(e.errors[0]) ?? '') : text.failure(e);
    }
  }));
  function act() {
    if (outcome === 'postponed') {
      open = false;
      onmove();
      return;
    }
    error = '';
    acting.mutate(outcome);
  }
</script>

<Dialog bind:open title={o.title(name)} onclose={() => closed && leave()}>
  <div class="px-5 pt-2 pb-5">
    {#if closed}
      <h3 class="text-base">{w.outcome.toReturn}</h3>
      <ul>
        {#each closed.toReturn as fact (fact.field)}
          <li class="border-rule flex gap-4 border-b py-1">
            <span class="text-soft w-40">{fieldTitle(fact.field)}</span><strong>{fact.shown}</strong>
          </li>
        {:else}<li class="text-soft">{w.outcome.nothing}</li>{/each}
      </ul>
      <div class="flex justify-end gap-3 pt-3">
        <Button onclick={back}>{w.outcome.undo}</Button>
        <Button look="primary" onclick={leave}>{w.close}</Button>
      </div>
    {:else}
      <fieldset class="flex flex-col gap-1">
        <legend class="sr-only">{o.title(name)}</legend>
        {#each outcomes as one (one)}
          <label class="flex items-center gap-2"
            ><input type="radio" bind:group={outcome} value={one} disabled={one === 'noShow' && start > text.today} />{one === 'withdrawn'
              ? o.withdrawn
              : one === 'postponed' && occasion !== 'arrival'
                ? occasionWords(occasion).move.open
                : w.outcome[one]}</label
          >
        {/each}
      </fieldset>
      {#if outcome !== 'postponed'}
        <p class="text-soft py-2 text-xs">{o.means}</p>
        <TextField id="outcome-why" label={w.outcome.why} bind:value={why} maxlength={500} {error} />
      {/if}
      <div class="flex justify-end gap-3 pt-3">
        <Button onclick={() => (open = false)}>{w.cancel}</Button>
        {#if outcome === 'postponed'}<Button look="primary" onclick={act}>{occasionWords(occasion).move.open}</Button>
        {:else}<Button look="danger" disabled={acting.isPending} onclick={act}>{o.act}</Button>{/if}
      </div>
    {/if}
  </div>
</Dialog>

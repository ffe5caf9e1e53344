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
  import { words } from './words';
  import { hireKeys } from './queries';

  /** A hire that comes to nothing, or later: withdrawn, no show, postponed; with a reason, and what is to be returned. */
  interface Props {
    open: boolean;
    id: string;
    name: string;
    start: string;
    onmove: () => void;
  }
  let { open = $bindable(), id, name, start, onmove }: Props = $props();
  const client = useQueryClient();
  const w = $derived(words());
  let outcome = $state<'withdrawn' | 'noShow' | 'postponed'>('withdrawn');
  let why = $state('');
  let error = $state('');
  let closed = $state<Api['OutcomeResponse']>();

  async function back() {
    closed = undefined;
    why = '';
    open = false;
    await goOn(id, client);
  }
  const acting = createMutation(() => ({
    mutationFn: async (how: 'withdrawn' | 'noShow') => {
      closed = await data(api.PUT('/api/hires/{id}/outcome', { params: { path: { id } }, body: { outcome: how, why } }));
      done(w.outcome.done(name), { label: w.outcome.undo, run: back });
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

<Dialog bind:open title={w.outcome.title(name)} onclose={() => closed && void goto('/arrivals')}>
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
        <Button look="primary" onclick={() => goto('/arrivals')}>{w.close}</Button>
      </div>
    {:else}
      <fieldset class="flex flex-col gap-1">
        <legend class="sr-only">{w.outcome.title(name)}</legend>
        {#each ['withdrawn', 'noShow', 'postponed'] as const as one (one)}
          <label class="flex items-center gap-2"
            ><input type="radio" bind:group={outcome} value={one} disabled={one === 'noShow' && start > text.today} />{w.outcome[
              one
            ]}</label
          >
        {/each}
      </fieldset>
      {#if outcome !== 'postponed'}
        <p class="text-soft py-2 text-xs">{w.outcome.means}</p>
        <TextField id="outcome-why" label={w.outcome.why} bind:value={why} maxlength={500} {error} />
      {/if}
      <div class="flex justify-end gap-3 pt-3">
        <Button onclick={() => (open = false)}>{w.cancel}</Button>
        {#if outcome === 'postponed'}<Button look="primary" onclick={act}>{w.outcome.move}</Button>
        {:else}<Button look="danger" disabled={acting.isPending} onclick={act}>{w.outcome.act2}</Button>{/if}
      </div>
    {/if}
  </div>
</Dialog>

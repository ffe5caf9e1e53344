<script lang="ts">
  import { api, ApiProblem, data, type Api, type ProblemEntry } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import DateField from '$lib/ui/DateField.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { done } from '$lib/ui/toast';
  import { createMutation, useQueryClient } from '@tanstack/svelte-query';
  import ListPicker from './ListPicker.svelte';
  import { usageText } from './usage';
  import { words } from './words';
  import { listKeys } from './queries';

  /** Retires an entry; its users keep it, or move to another from a day on. */
  let { list, entry, onclose, ondone }: { list: Api['ListSummary']; entry: Api['EntryResponse']; onclose: () => void; ondone: () => void } =
    $props();
  const w = $derived(words());
  const client = useQueryClient();
  let open = $state(true);
  let moveTo = $state('');
  let from = $state<string | null>(session.today);
  let why = $state('');
  let errors = $state<ProblemEntry[]>([]);
  const error = (pointer: string) => text.problem(errors.find((e) => e.pointer === pointer));

  const retiring = createMutation(() => ({
    mutationFn: async () => {
      await data(
        api.POST('/api/lists/{list}/entries/{code}/retire', {
          params: { path: { list: list.key, code: entry.code } },
          body: { moveTo: moveTo || null, from, why: why || null }
        })
      );
      // Told first: the entry leaves the list below as soon as that is fetched anew, and this sheet with it.
      done(w.retireDone(entry.name));
      open = false;
      ondone();
      onclose();
      await client.invalidateQueries({ queryKey: listKeys.all });
    },
    onError: (e) => {
      errors =
        e instanceof ApiProblem && e.errors.length > 0 ? e.errors : [{ pointer: '/moveTo', code: 'fallback', detail: text.failure(e) }];
    }
  }));
  function retire(event: SubmitEvent) {
    event.preventDefault();
    retiring.mutate();
  }
</script>

<Dialog bind:open title={w.retireTitle(entry.name)} {onclose}>
  <form class="px-5 pt-2 pb-5" onsubmit={retire} novalidate>
    <p class="pb-1">{w.retireAbout}</p>
    <p class="text-soft pb-3 text-xs">{w.usedBy} {usageText(entry.usage) || w.nobody}</p>
    {#if entry.usage}
      <div class="grid gap-x-6 sm:grid-cols-2">
        <ListPicker
          id="retire-to"
          label={w.moveTo}
          list={list.key}
          without={[entry.code]}
          bind:value={moveTo}
          note={w.moveNote}
          error={error('/moveTo')}
        />
        {#if moveTo && entry.usage.people > 0}<DateField
            id="retire-from"
            label={w.moveFrom}
            bind:value={from}
            error={error('/from')}
          />{/if}
      </div>
    {/if}
    <TextField id="retire-why" label={w.why} bind:value={why} maxlength={500} error={error('/why')} />
    <div class="flex justify-end gap-3 pt-2">
      <Button
        onclick={() => {
          open = false;
          onclose();
        }}>{w.cancel}</Button
      >
      <Button type="submit" look="danger" disabled={retiring.isPending}>{w.retireAct}</Button>
    </div>
  </form>
</Dialog>

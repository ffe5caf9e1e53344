<script lang="ts">
  import { goto } from '$app/navigation';
  import { api, data, type Api } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { entryPath, listKeys } from '$lib/lists/queries';
  import Retire from '$lib/lists/Retire.svelte';
  import { usageText } from '$lib/lists/usage';
  import Users from '$lib/lists/Users.svelte';
  import { words } from '$lib/lists/words';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import FooterSheet from '$lib/ui/FooterSheet.svelte';
  import { done, failed } from '$lib/ui/toast';
  import { useQueryClient } from '@tanstack/svelte-query';

  /** The entry that is selected: who uses it, and what can be done with it. */
  let { list, entry, close }: { list: Api['ListSummary']; entry: Api['EntryResponse']; close: () => void } = $props();
  const w = $derived(words());
  const client = useQueryClient();
  let retiring = $state(false);
  let showing = $state(false);
  const path = $derived({ list: list.key, code: entry.code });

  async function act(call: Promise<unknown>, told: string) {
    try {
      await call;
      await client.invalidateQueries({ queryKey: listKeys.all });
      done(told);
      close();
    } catch (e) {
      failed(e instanceof Error && e.message ? e.message : text.failure(e));
    }
  }
</script>

<FooterSheet label={entry.name}>
  <div class="min-w-0 flex-1">
    <p class="font-semibold"><bdi>{entry.name}</bdi> <span class="text-soft font-normal">{entry.code}</span></p>
    <p class="text-soft text-xs">{w.usedBy} {usageText(entry.usage) || w.nobody}</p>
  </div>
  <div class="flex flex-wrap gap-3">
    {#if entry.usage}<Button onclick={() => (showing = true)}>{w.showUsers}</Button>{/if}
    {#if session.may('edit list')}
      {#if entry.retired}
        <Button
          onclick={() => act(data(api.POST('/api/lists/{list}/entries/{code}/restore', { params: { path } })), w.restored(entry.name))}
          >{w.restore}</Button
        >
      {:else}
        <Button onclick={() => (retiring = true)}>{w.retire}</Button>
      {/if}
      {#if !entry.usage}
        <Button
          look="danger"
          onclick={() => act(data(api.DELETE('/api/lists/{list}/entries/{code}', { params: { path } })), w.removed(entry.name))}
          >{w.remove}</Button
        >
      {/if}
    {/if}
    <Button look="primary" key="e" onclick={() => goto(entryPath(list.key, entry.code))}>{w.open}</Button>
  </div>
</FooterSheet>
{#if retiring}<Retire {list} {entry} onclose={() => (retiring = false)} ondone={close} />{/if}
{#if showing}<Users {list} {entry} onclose={() => (showing = false)} />{/if}

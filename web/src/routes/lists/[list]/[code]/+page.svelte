<script lang="ts">
  import { page } from '$app/state';
  import { api, data } from '$lib/api/client';
  import EntryScreen from '$lib/lists/EntryScreen.svelte';
  import { listsQuery, listKeys } from '$lib/lists/queries';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { createQuery } from '@tanstack/svelte-query';

  // A plus in the place of a code stands for an entry that is still to be added: no code may be just that sign in an address.
  const list = $derived(page.params.list!);
  const code = $derived(page.params.code!);
  const isNew = $derived(code === '+');
  const lists = listsQuery();
  const summary = $derived(lists.data?.find((l) => l.key === list));
  // Not fetched anew while it is edited: what somebody else saves meanwhile is told when saving.
  const entry = createQuery(() => ({
    queryKey: listKeys.entry(list, code),
    queryFn: () => data(api.GET('/api/lists/{list}/entries/{code}', { params: { path: { list, code } } })),
    enabled: !isNew,
    gcTime: 0,
    staleTime: Infinity
  }));
</script>

{#if !summary || (!isNew && !entry.data)}
  <Waiting error={lists.error ?? entry.error} retry={() => entry.refetch()} />
{:else}
  {#key `${list}/${code}`}<EntryScreen list={summary} entry={isNew ? undefined : entry.data} />{/key}
{/if}

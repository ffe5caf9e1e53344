<script lang="ts">
  import { type Api } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import { useQueryClient } from '@tanstack/svelte-query';
  import { EntryEditing } from './editing.svelte';
  import EntryFields from './EntryFields.svelte';
  import { listsQuery, listKeys } from './queries';
  import { words } from './words';

  /** A small sheet that adds an entry without leaving where one is: the code, the name, and what the list cannot do without. */
  let {
    list,
    name,
    onclose,
    onadded
  }: { list: string; name: string; onclose: () => void; onadded: (entry: Api['EntryResponse']) => void } = $props();
  const client = useQueryClient();
  const lists = listsQuery();
  const summary = $derived(lists.data?.find((l) => l.key === list));
  let editing = $state.raw<EntryEditing>();
  let open = $state(true);
  const w = $derived(words());
  $effect(() => {
    if (summary && !editing) editing = new EntryEditing(summary, undefined, name);
  });

  async function add(event: SubmitEvent) {
    event.preventDefault();
    event.stopPropagation(); // the form this stands in is not sent by it
    const saved = await editing!.save();
    if (!saved) return;
    await client.invalidateQueries({ queryKey: listKeys.all });
    onadded(saved);
    open = false;
    onclose();
  }
</script>

{#if summary && editing}
  <Dialog bind:open title={w.addTo(summary.label[text.language])} {onclose} focus="#add-code">
    <form onsubmit={add} class="px-5 pt-3 pb-5" novalidate>
      <EntryFields {editing} idPrefix="add" onlyRequired />
      <div class="mt-3 flex justify-end gap-3">
        <Button
          onclick={() => {
            open = false;
            onclose();
          }}>{w.cancel}</Button
        >
        <Button type="submit" look="primary" disabled={editing.busy}>{w.add}</Button>
      </div>
    </form>
  </Dialog>
{/if}

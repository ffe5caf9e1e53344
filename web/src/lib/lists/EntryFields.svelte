<script lang="ts">
  import { text } from '$lib/text/index.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import ColumnField from './ColumnField.svelte';
  import type { EntryEditing } from './editing.svelte';
  import { words } from './words';

  /** Code, names and columns of an entry, each with the editor that fits what it holds. */
  interface Props {
    editing: EntryEditing;
    idPrefix?: string;
    /** Leaves out what may stay empty. */
    onlyRequired?: boolean;
    /** Columns shown elsewhere on the screen. */
    without?: string[];
  }
  let { editing, idPrefix = 'entry', onlyRequired = false, without = [] }: Props = $props();
  const w = $derived(words());
  const columns = $derived(editing.list.columns.filter((c) => !without.includes(c.key) && (!onlyRequired || c.required)));
  const other = $derived(editing.errors.filter((e) => e.pointer === ''));
</script>

<div class="grid gap-x-6 gap-y-2 min-[28rem]:grid-cols-2 xl:grid-cols-3">
  <TextField
    id="{idPrefix}-code"
    label={w.code}
    bind:value={editing.code}
    readonly={!editing.isNew}
    maxlength={60}
    autocomplete="off"
    note={editing.isNew ? w.codeNote : w.codeFixed}
    error={text.problem(editing.error('code'))}
  />
  <TextField
    id="{idPrefix}-name"
    label={w.name}
    bind:value={editing.name}
    maxlength={300}
    autocomplete="off"
    error={text.problem(editing.error('name'))}
  />
  <TextField
    id="{idPrefix}-nameDe"
    label={w.nameDe}
    bind:value={editing.nameDe}
    maxlength={300}
    autocomplete="off"
    error={text.problem(editing.error('nameDe'))}
  />
  {#each columns as column (column.key)}
    <ColumnField {column} {editing} id="{idPrefix}-{column.key}" />
  {/each}
</div>
{#each other as entry (entry.code)}<p role="alert" class="text-rust mt-2 font-semibold">{text.problem(entry)}</p>{/each}

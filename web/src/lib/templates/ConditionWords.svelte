<script lang="ts">
  import { fieldTitle } from '$lib/text/fieldLabels.svelte';
  import { nameOf, optionsQuery } from '$lib/lists/queries';
  import { text } from '$lib/text/index.svelte';
  import { clausesOf } from '$lib/fields/clauses';
  import { words } from './words';
  import { editingQuery } from './queries';

  /** Where an add-on applies, in words where its condition is of plain choices. */
  let { when }: { when: string | null } = $props();
  const w = $derived(words());
  const options = optionsQuery();
  const editing = editingQuery();
  const clauses = $derived(clausesOf(when));
  const value = (field: string, v: string) => {
    if (field === 'returning') return v === 'yes' ? w.value.yes : w.value.no;
    const known = editing.data?.fields.find((f) => f.field.key === field)?.field;
    if (known?.list) return nameOf(options.data?.options ?? [], known.list, v);
    return known?.options?.find((o) => o.value === v)?.label[text.language] ?? v;
  };
</script>

{#if clauses === undefined}<code>{when}</code>
{:else if clauses.length === 0}{w.everybody}
{:else}{clauses
    .map(
      (c) =>
        `${c.field === 'returning' ? w.when.returning : fieldTitle(c.field)} ${w.when.is} ${c.values.map((v) => value(c.field, v)).join(` ${w.when.or} `)}`
    )
    .join(` ${w.when.and} `)}{/if}

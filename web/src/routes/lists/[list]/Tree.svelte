<script lang="ts">
  import { api, ApiProblem, data, type Api } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { entryPath, listKeys } from '$lib/lists/queries';
  import { usageText } from '$lib/lists/usage';
  import { words } from '$lib/lists/words';
  import { text } from '$lib/text/index.svelte';
  import { named } from '$lib/text/named';
  import { done, failed } from '$lib/ui/toast';
  import { useQueryClient } from '@tanstack/svelte-query';

  /** A tree of entries. A branch is moved by dragging it onto another, or by opening it and choosing what it is part of. */
  let {
    list,
    rows,
    selected = $bindable()
  }: { list: Api['ListSummary']; rows: Api['EntryResponse'][]; selected: string | undefined } = $props();
  const w = $derived(words());
  const client = useQueryClient();
  let dragged = $state<string>();
  let over = $state<string>();

  const parentOf = (row: Api['EntryResponse']) => (typeof row.values.parent === 'string' ? row.values.parent : null);
  const lines = $derived.by(() => {
    const known = new Set(rows.map((r) => r.code));
    const children = Map.groupBy(rows, (r) => (known.has(parentOf(r) ?? '') ? parentOf(r) : null));
    const walk = (parent: string | null, depth: number): { row: Api['EntryResponse']; depth: number; last: boolean }[] =>
      (children.get(parent) ?? [])
        .toSorted((a, b) => named(a).localeCompare(named(b)))
        .flatMap((row, i, all) => [{ row, depth, last: i === all.length - 1 }, ...walk(row.code, depth + 1)]);
    return walk(null, 0);
  });

  async function put(row: Api['EntryResponse'], parent: string | null, version: string) {
    const values = { ...row.values };
    delete values.parent;
    return data(
      api.PUT('/api/lists/{list}/entries/{code}', {
        params: { path: { list: list.key, code: row.code } },
        headers: { 'If-Match': version },
        body: { code: row.code, name: row.name, nameDe: row.nameDe, values: parent ? { ...values, parent } : values }
      })
    );
  }
  async function drop(parent: string | null) {
    const row = rows.find((r) => r.code === dragged);
    dragged = over = undefined;
    if (!row || parent === row.code || parent === parentOf(row)) return;
    const before = parentOf(row);
    await move(row, parent, row.version, (version) => ({ label: w.tree.undo, run: () => void move(row, before, version) }));
  }
  async function move(
    row: Api['EntryResponse'],
    parent: string | null,
    version: string,
    undo?: (version: string) => { label: string; run: () => void }
  ) {
    try {
      const saved = await put(row, parent, version);
      const to = rows.find((r) => r.code === parent);
      done(to ? w.tree.moved(named(row), named(to)) : w.tree.movedTop(named(row)), undo?.(saved.version));
    } catch (e) {
      failed(e instanceof ApiProblem && e.errors[0] ? (text.problem(e.errors[0]) ?? '') : text.failure(e));
    }
    await client.invalidateQueries({ queryKey: listKeys.all });
  }
</script>

{#if session.may('edit list')}<p class="text-faint pb-1 text-xs">{w.tree.hint}</p>{/if}
<table class="border-ink w-full border-t text-left">
  <thead class="sr-only"><tr><th>{w.name}</th><th>{w.usedBy}</th></tr></thead>
  <tbody>
    {#each lines as { row, depth } (row.code)}
      <tr
        class="border-rule border-t {over === row.code && dragged !== row.code
          ? 'bg-sea-tint outline-sea outline-2'
          : selected === row.code
            ? 'bg-sea-tint'
            : 'hover:bg-sheet'}"
        aria-selected={selected === row.code}
        draggable={session.may('edit list')}
        onclick={() => (selected = row.code)}
        ondragstart={(e) => {
          dragged = row.code;
          e.dataTransfer?.setData('text/plain', row.code);
        }}
        ondragend={() => (dragged = over = undefined)}
        ondragover={(e) => {
          e.preventDefault();
          over = row.code;
        }}
        ondrop={(e) => {
          e.preventDefault();
          void drop(row.code);
        }}
      >
        <td class="py-1.5">
          <span class="flex items-baseline gap-2" style:padding-left="{depth * 1.6 + 0.5}rem">
            <span class="text-faint" aria-hidden="true">{depth > 0 ? '└' : ''}</span>
            <a class="font-semibold hover:underline" href={entryPath(list.key, row.code)}><bdi>{named(row)}</bdi></a>
            <span class="text-soft text-xs">{row.code}{row.head ? ` · ${w.tree.led(row.head)}` : ''}</span>
          </span>
        </td>
        <td class="text-soft px-2 text-right text-xs">{usageText(row.usage)}</td>
      </tr>
    {/each}
    {#if dragged}
      <tr
        class="border-rule border-t border-dashed"
        ondragover={(e) => {
          e.preventDefault();
          over = '';
        }}
        ondrop={(e) => {
          e.preventDefault();
          void drop(null);
        }}><td colspan="2" class="text-soft px-2 py-2">{w.tree.top}</td></tr
      >
    {/if}
  </tbody>
</table>

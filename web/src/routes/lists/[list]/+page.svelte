<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { api, data } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { keys } from '$lib/keys/keys.svelte';
  import { entryPath, listsQuery, optionsQuery, listKeys } from '$lib/lists/queries';
  import { cellText, usageText } from '$lib/lists/usage';
  import { words } from '$lib/lists/words';
  import { text } from '$lib/text/index.svelte';
  import { named } from '$lib/text/named';
  import Button from '$lib/ui/Button.svelte';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { settled } from '$lib/ui/settled.svelte';
  import { createInfiniteQuery, keepPreviousData } from '@tanstack/svelte-query';
  import EntrySheet from './EntrySheet.svelte';
  import Tree from './Tree.svelte';

  const list = $derived(page.params.list!);
  const lists = listsQuery();
  const options = optionsQuery();
  const w = $derived(words());
  const summary = $derived(lists.data?.find((l) => l.key === list));
  let find = $state('');
  let retired = $state(false);
  let finder = $state<HTMLInputElement>();
  let selected = $state<string>();
  const asked = settled(() => find);
  const entries = createInfiniteQuery(() => ({
    queryKey: listKeys.entries(list, asked.current, retired),
    queryFn: ({ pageParam }) =>
      data(api.GET('/api/lists/{list}/entries', { params: { path: { list }, query: { find: asked.current, retired, after: pageParam } } })),
    initialPageParam: undefined as string | undefined,
    getNextPageParam: (last: { next: string | null }) => last.next ?? undefined,
    placeholderData: keepPreviousData
  }));
  const rows = $derived(entries.data?.pages.flatMap((p) => p.entries) ?? []);
  const chosen = $derived(rows.find((r) => r.code === selected));
  const tree = $derived(summary !== undefined && summary.deepestTree > 0 && find === '' && !retired && !entries.hasNextPage);
  // A table shows what fits: long texts and what has its own drawing stand in the editor.
  const columns = $derived(
    summary?.columns.filter((c) => !['longText', 'link', 'formula', 'brackets', 'rates', 'heads'].includes(c.type)).slice(0, 6) ?? []
  );

  function move(by: number) {
    const at = rows.findIndex((r) => r.code === selected);
    const next = rows[Math.max(0, Math.min(rows.length - 1, at + by))];
    if (!next) return;
    selected = next.code;
    requestAnimationFrame(() => document.querySelector<HTMLElement>('tr[aria-selected="true"] a')?.focus());
  }
  $effect(() =>
    keys.use(() => [
      { key: '/', label: text.t.keys.filter, run: () => finder?.focus() },
      { key: 'ArrowDown', label: text.t.keys.down, run: () => move(1) },
      { key: 'ArrowUp', label: text.t.keys.up, run: () => move(-1) },
      { key: 'e', label: w.open, run: () => chosen && void goto(entryPath(list, chosen.code)) },
      { key: 'a', label: w.add, run: () => session.may('edit list') && void goto(`/lists/${list}/+`) },
      { key: 'Escape', run: () => (selected ? (selected = undefined) : void goto('/lists')) }
    ])
  );
</script>

<svelte:head><title>{summary?.label[text.language] ?? w.title} · Fid</title></svelte:head>

{#if !summary || !entries.data}
  {#if lists.data && !summary}
    <div class="page text-soft py-8"><h1 class="text-ink text-xl">{text.t.common.notFound}</h1></div>
  {:else}
    <Waiting error={lists.error ?? entries.error} retry={() => entries.refetch()} />
  {/if}
{:else}
  <div class="page pb-8">
    <p class="pt-4 text-xs"><a class="link" href="/lists">{w.title}</a></p>
    <div class="flex flex-wrap items-center justify-between gap-3 pb-1">
      <h1 class="text-2xl">{summary.label[text.language]}</h1>
      <div class="flex flex-wrap gap-3">
        <a class="link self-center text-xs font-semibold" href="/api/lists/{list}/sheet.xlsx?language={text.language}" download>{w.sheet}</a
        >
        {#if session.may('edit list')}
          <a class="link self-center text-xs font-semibold" href="/exchange/new?list={list}">{w.fromSheet}</a>
          <Button look="primary" key="a" onclick={() => goto(`/lists/${list}/+`)}>{w.add}</Button>
        {/if}
      </div>
    </div>
    <p class="text-soft pb-3">{summary.about[text.language]}</p>
    <div class="flex flex-wrap items-center gap-x-6 gap-y-2 pb-2">
      <input
        bind:this={finder}
        bind:value={find}
        type="search"
        aria-label={w.find}
        placeholder={w.find}
        maxlength={100}
        class="border-ink w-56 border-b bg-transparent py-1"
      />
      {#if summary.retired > 0 || retired}
        <button type="button" class="link text-xs" onclick={() => (retired = !retired)}>{retired ? w.showCurrent : w.showRetired}</button>
      {/if}
    </div>
    {#if rows.length === 0}
      <p class="border-ink border-t py-5">
        {find || retired ? w.noneFound : w.none}
        {#if !find && !retired && session.may('edit list')}<a class="link" href="/setup#{list}">{w.setup}</a>{/if}
      </p>
    {:else if tree}
      <Tree list={summary} {rows} bind:selected />
    {:else}
      <!-- svelte-ignore a11y_no_noninteractive_tabindex (it scrolls on narrow screens, so it must be reachable) -->
      <div class="overflow-x-auto" tabindex="0" role="region" aria-label={summary.label[text.language]}>
        <table class="narrow border-ink w-full border-t text-left">
          <thead class="text-soft bg-paper sticky top-0 text-xs">
            <tr>
              <th class="px-2 py-1.5 font-normal">{w.code}</th>
              <th class="px-2 font-normal">{w.name}</th>
              {#each columns as column (column.key)}<th class="px-2 font-normal whitespace-nowrap">{column.label[text.language]}</th>{/each}
              <th class="px-2 font-normal">{w.usedBy}</th>
            </tr>
          </thead>
          <tbody>
            {#each rows as row (row.code)}
              <tr
                class="border-rule border-t align-top {selected === row.code ? 'bg-sea-tint' : 'hover:bg-sheet'}"
                aria-selected={selected === row.code}
                onclick={() => (selected = row.code)}
              >
                <td class="text-soft px-2 py-1.5 whitespace-nowrap">{row.code}</td>
                <td class="px-2 py-1.5 font-semibold"
                  ><a class="hover:underline" href={entryPath(list, row.code)}><bdi>{named(row)}</bdi></a></td
                >
                {#each columns as column (column.key)}
                  <td class="max-w-64 truncate px-2 py-1.5">{cellText(column, row.values[column.key], options.data?.options ?? [])}</td>
                {/each}
                <td class="text-soft px-2 py-1.5 text-xs whitespace-nowrap">
                  {#if list === 'seats'}
                    {@const of = Number(row.values.head_count ?? 0)}
                    {@const held = row.held ?? 0}
                    {w.seat.holders(held, of)}{#if of > held}, <strong class="text-ochre">{w.seat.vacant(of - held)}</strong
                      >{:else if held > of},
                      <strong class="text-rust">{w.seat.over(held - of)}</strong>{/if}
                  {:else}{usageText(row.usage) || '–'}{/if}
                </td>
              </tr>
            {/each}
          </tbody>
        </table>
      </div>
    {/if}
    {#if entries.hasNextPage}<p class="pt-3"><Button onclick={() => entries.fetchNextPage()}>{w.more}</Button></p>{/if}
  </div>
  {#if chosen}<EntrySheet list={summary} entry={chosen} close={() => (selected = undefined)} />{/if}
{/if}

<script lang="ts">
  import { api, data, type Api } from '$lib/api/client';
  import { words as listWords } from '$lib/lists/words';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import { createInfiniteQuery, keepPreviousData } from '@tanstack/svelte-query';
  import { words as exchangeWords } from './words';

  /** All rows with what each would do; a column's head says what it is, a cell that is wrong says why and can be mended there. */
  interface Props {
    run: Api['ImportResponse'];
    list: Api['ImportTargetResponse'];
    only: string;
    match: (change: Partial<Api['MatchingRequest']>) => void;
    mend: (row: number, column: number, cell: string, allLike: boolean) => Promise<void>;
  }
  let { run, list, only, match, mend }: Props = $props();
  const w = $derived(exchangeWords());
  const l = $derived(listWords());
  const open = $derived(run.state === 'ready');
  const pages = createInfiniteQuery(() => ({
    queryKey: ['imports', run.id, 'rows', only, run.generation],
    queryFn: ({ pageParam }) =>
      data(api.GET('/api/imports/{id}/rows', { params: { path: { id: run.id }, query: { only: only || undefined, after: pageParam } } })),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: (last: { next: number | null }) => last.next ?? undefined,
    placeholderData: keepPreviousData
  }));
  const rows = $derived(pages.data?.pages.flatMap((p) => p.rows) ?? []);
  const choices = $derived([
    { value: '', label: w.leaveOut },
    ...(list.hasNames
      ? [
          { value: 'code', label: l.code },
          { value: 'name', label: l.name },
          { value: 'name_de', label: l.nameDe }
        ]
      : [{ value: 'code', label: w.employeeNumber }]),
    ...list.columns.map((c) => ({ value: c.key, label: c.label[text.language] }))
  ]);
  let editing = $state<string>();

  function rematch(at: number, key: string) {
    // A column is given once: whoever had it before is left out.
    match({ columns: run.columns.map((c, i) => (i === at ? key : c === key && key !== '' ? '' : c)) });
  }
  async function save(row: Api['ImportRowResponse'], column: number, cell: string) {
    editing = undefined;
    if (cell !== (row.cells[column] ?? '')) await mend(row.number, column, cell, false);
  }
  /** Loads the next rows when the end comes into sight. */
  function more(node: HTMLElement) {
    const seen = new IntersectionObserver((entries) => {
      if (entries.some((e) => e.isIntersecting) && pages.hasNextPage && !pages.isFetchingNextPage) void pages.fetchNextPage();
    });
    seen.observe(node);
    return { destroy: () => seen.disconnect() };
  }
  const looks: Record<string, string> = {
    new: 'text-sea',
    changed: 'text-ochre',
    same: 'text-faint',
    wrong: 'text-rust',
    ignored: 'text-faint'
  };
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex (it scrolls, so it must be reachable) -->
<div class="border-ink overflow-x-auto border-t" tabindex="0" role="region" aria-label={w.columns.rows}>
  <table class="narrow w-full text-left text-xs">
    <thead class="bg-paper align-bottom">
      <tr>
        <th class="text-soft px-2 py-1 font-normal">{w.row}</th>
        <th class="text-soft px-2 py-1 font-normal">{w.would}</th>
        {#each run.headers as header, i (i)}
          <th class="min-w-32 px-2 py-1 font-normal">
            <bdi class="block font-semibold">{header}</bdi>
            {#if open}
              <select
                aria-label={w.matchTo(header)}
                value={run.columns[i]}
                onchange={(e) => rematch(i, e.currentTarget.value)}
                class="border-rule bg-sheet min-h-7 w-full border-b {run.columns[i] === '' ? 'text-soft' : ''}"
              >
                {#each choices as choice (choice.value)}<option value={choice.value}>{choice.label}</option>{/each}
              </select>
            {:else}<span class="text-soft">{choices.find((c) => c.value === run.columns[i])?.label}</span>{/if}
            <span class="text-faint text-2xs block min-h-4">{w.by[run.matchedBy[i] ?? ''] ?? ''}</span>
          </th>
        {/each}
      </tr>
    </thead>
    <tbody>
      {#each rows as row (row.number)}
        {@const loose = row.problems.filter((p) => p.at === null)}
        <tr class="border-rule border-t align-top">
          <td class="text-soft px-2 py-1">{row.number}</td>
          <td class="px-2 py-1 font-semibold whitespace-nowrap {looks[row.outcome]}">
            {w.outcomes[row.outcome]}
            {#each loose as problem (problem.column + problem.code)}<p class="text-rust max-w-40 font-normal whitespace-normal">
                {choices.find((c) => c.value === problem.column)?.label}: {text.problem({
                  pointer: '',
                  code: problem.code,
                  detail: problem.detail
                })}
              </p>{/each}
          </td>
          {#each run.headers as header, i (i)}
            {@const cell = row.cells[i] ?? ''}
            {@const problem = row.problems.find((p) => p.at === i)}
            {@const change = row.changes.find((c) => c.at === i)}
            {@const key = `${row.number}/${i}`}
            <td
              class="max-w-72 px-1 py-0.5 {problem ? 'bg-rust-tint' : change ? 'bg-ochre-tint' : run.columns[i] === '' ? 'text-faint' : ''}"
            >
              {#if open && editing === key}
                <!-- svelte-ignore a11y_autofocus (the reader has just asked for it) -->
                <input
                  autofocus
                  value={cell}
                  aria-label={w.cell(header, row.number)}
                  class="bg-sheet outline-sea min-h-7 w-full min-w-28 px-1 outline-2"
                  onblur={(e) => void save(row, i, e.currentTarget.value)}
                  onkeydown={(e) => {
                    if (e.key === 'Enter') e.currentTarget.blur();
                    if (e.key === 'Escape') {
                      e.stopPropagation();
                      editing = undefined;
                    }
                  }}
                />
              {:else if open}
                <button
                  type="button"
                  class="min-h-6 w-full truncate px-1 text-left"
                  aria-label="{w.cell(header, row.number)}: {cell}"
                  onclick={() => (editing = key)}><bdi>{cell || ' '}</bdi></button
                >
              {:else}<bdi class="px-1">{cell}</bdi>{/if}
              {#if change}<p class="text-soft text-2xs truncate px-1">{w.from(change.before)}</p>{/if}
              {#if problem}
                <p class="text-rust text-2xs px-1 font-semibold">
                  {text.problem({ pointer: '', code: problem.code, detail: problem.detail })}
                </p>
                {#if open && problem.suggestion}
                  <p class="text-2xs flex flex-wrap gap-x-2 px-1">
                    <button type="button" class="link min-h-6 font-semibold" onclick={() => mend(row.number, i, problem.suggestion!, false)}
                      >{w.meant(problem.suggestion)}</button
                    >
                    <button type="button" class="link min-h-6" onclick={() => mend(row.number, i, problem.suggestion!, true)}
                      >{w.allLike(cell)}</button
                    >
                  </p>
                {/if}
              {/if}
            </td>
          {/each}
        </tr>
      {/each}
    </tbody>
  </table>
</div>
{#if pages.hasNextPage}<p use:more class="pt-3"><Button onclick={() => pages.fetchNextPage()}>{l.more}</Button></p>{/if}

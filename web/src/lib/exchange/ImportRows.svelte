<script lang="ts" module>
  /** A cell mended by the reader, or all of its column that say the same. */
  export interface Mended {
    row: number;
    column: number;
    text: string;
    allLike: boolean;
  }
</script>

<script lang="ts">
  import { api, data, type Api } from '$lib/api/client';
  import { words as listWords } from '$lib/lists/words';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import { causesFirst, type RowProblem } from '$lib/ui/rowProblems';
  import RowProblems from '$lib/ui/RowProblems.svelte';
  import { createInfiniteQuery, keepPreviousData } from '@tanstack/svelte-query';
  import { tick } from 'svelte';
  import { words as exchangeWords } from './words';
  import { importKeys } from './queries';

  /** All rows with what each would do; a column's head says what it is, a cell that is wrong says why and can be mended there. */
  interface Props {
    run: Api['ImportResponse'];
    list: Api['ImportTargetResponse'];
    only: string;
    match: (change: Partial<Api['MatchingRequest']>) => void;
    mend: (mended: Mended) => void;
    /** What was mended and is not checked yet. */
    waiting: Mended[];
  }
  let { run, list, only, match, mend, waiting }: Props = $props();
  const w = $derived(exchangeWords());
  const l = $derived(listWords());
  // While rows are checked one goes on mending: what is mended meanwhile is sent after it.
  const open = $derived(run.state === 'ready' || run.state === 'checking');
  // What was mended here stays in sight, also where it is not wrong any more.
  let also = $derived.by(() => {
    void only;
    return [] as number[];
  });
  const kept = $derived(only ? also : []);
  const pages = createInfiniteQuery(() => ({
    queryKey: importKeys.rows(run.id, only, run.generation, kept),
    queryFn: ({ pageParam }) =>
      data(
        api.GET('/api/imports/{id}/rows', {
          params: { path: { id: run.id }, query: { only: only || undefined, after: pageParam, also: kept } }
        })
      ),
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
  // As many rows as the server answers beside those that are asked for.
  const mostKept = 200;
  let editing = $state<string>();

  function rematch(at: number, key: string) {
    // A column is given once: whoever had it before is left out.
    match({ columns: run.columns.map((c, i) => (i === at ? key : c === key && key !== '' ? '' : c)) });
  }
  // The last of what was mended in a cell, until its row has been checked.
  let shown = $state.raw<Mended[]>([]);
  $effect(() => {
    if (!pages.isPlaceholderData) shown = waiting;
  });
  const cellOf = (row: Api['ImportRowResponse'], column: number) =>
    [...shown, ...waiting].findLast((m) => m.row === row.number && m.column === column)?.text ?? row.cells[column] ?? '';
  function save(row: Api['ImportRowResponse'], column: number, cell: string) {
    editing = undefined;
    if (cell !== cellOf(row, column)) take(row, column, cell, false);
  }
  function take(row: Api['ImportRowResponse'], column: number, cell: string, allLike: boolean) {
    if (!also.includes(row.number)) also = [...also.slice(-(mostKept - 1)), row.number];
    mend({ row: row.number, column, text: cell, allLike });
  }
  function accept(row: Api['ImportRowResponse'], column: number, suggestion: string, allLike: boolean) {
    take(row, column, suggestion, allLike);
    void stay(`${row.number}/${column}`);
  }
  // The reader stays where they mend, by whichever way the cell was left.
  async function stay(key: string) {
    await tick();
    document.getElementById(`cell-${key}`)?.focus();
  }
  const problemsOf = (row: Api['ImportRowResponse']): RowProblem[] =>
    causesFirst(
      row.problems.map((p) => ({
        id: `problem-${row.number}-${p.at ?? p.column}`,
        at: p.at,
        label: p.at === null ? nameOf(p.column) : run.headers[p.at]!,
        says: text.problem({ pointer: '', code: p.code, detail: p.detail })!,
        follows: p.follows ? (p.follows.row !== null ? w.rowNumber(p.follows.row) : nameOf(p.follows.column!)) : undefined
      }))
    );
  function nameOf(column: string) {
    const at = run.columns.indexOf(column);
    return at >= 0 ? run.headers[at]! : (choices.find((c) => c.value === column)?.label ?? column);
  }
  function goTo(row: Api['ImportRowResponse'], problem: RowProblem) {
    if (problem.at !== null && open) editing = `${row.number}/${problem.at}`;
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
        {@const problems = problemsOf(row)}
        <tr class="border-rule border-t align-top">
          <td class="text-soft px-2 py-1">{row.number}</td>
          <td class="px-2 py-1 font-semibold whitespace-nowrap {looks[row.outcome]}">
            {w.outcomes[row.outcome]}
          </td>
          {#each run.headers as header, i (i)}
            {@const cell = cellOf(row, i)}
            {@const problem = problems.find((p) => p.at === i)}
            {@const change = row.changes.find((c) => c.at === i)}
            {@const key = `${row.number}/${i}`}
            <td
              class="max-w-72 px-1 py-0.5 {problem
                ? problem.follows
                  ? 'border-rust border-b'
                  : 'bg-rust-tint'
                : change
                  ? 'bg-ochre-tint'
                  : run.columns[i] === ''
                    ? 'text-faint'
                    : ''}"
            >
              {#if open && editing === key}
                <!-- svelte-ignore a11y_autofocus (the reader has just asked for it) -->
                <input
                  autofocus
                  value={cell}
                  aria-label={w.cell(header, row.number)}
                  class="bg-sheet outline-sea min-h-7 w-full min-w-28 px-1 outline-2"
                  aria-invalid={problem ? true : undefined}
                  aria-describedby={problem?.id}
                  onblur={(e) => editing === key && save(row, i, e.currentTarget.value)}
                  onkeydown={(e) => {
                    if (e.key === 'Enter') save(row, i, e.currentTarget.value);
                    else if (e.key === 'Escape') {
                      e.stopPropagation();
                      editing = undefined;
                    } else return;
                    // Else the key would press the button that the field gives way to.
                    e.preventDefault();
                    void stay(key);
                  }}
                />
              {:else if open}
                <button
                  type="button"
                  id="cell-{key}"
                  class="min-h-6 w-full truncate px-1 text-left"
                  aria-label="{w.cell(header, row.number)}: {cell}"
                  aria-describedby={problem?.id}
                  onclick={() => (editing = key)}><bdi>{cell || ' '}</bdi></button
                >
              {:else}<bdi class="px-1">{cell}</bdi>{/if}
              {#if change}<p class="text-soft text-2xs truncate px-1">{w.from(change.before)}</p>{/if}
            </td>
          {/each}
        </tr>
        {#if problems.length > 0}
          <tr class="align-top">
            <td></td>
            <td colspan={run.headers.length + 1} class="px-2 pb-2">
              <!-- Beside the cells that scroll past it, so that it is read whole. -->
              <div class="sticky left-2 w-fit">
                <RowProblems {problems} go={(problem) => goTo(row, problem)}>
                  {#snippet acts(problem)}
                    {@const suggestion = row.problems.find((p) => p.at === problem.at)?.suggestion}
                    {#if open && suggestion && problem.at !== null}
                      {@const at = problem.at}
                      <button type="button" class="link min-h-6 font-semibold" onclick={() => accept(row, at, suggestion, false)}
                        >{w.meant(suggestion)}</button
                      >
                      <button type="button" class="link min-h-6" onclick={() => accept(row, at, suggestion, true)}
                        >{w.allLike(cellOf(row, at))}</button
                      >
                    {/if}
                  {/snippet}
                </RowProblems>
              </div>
            </td>
          </tr>
        {/if}
      {/each}
    </tbody>
  </table>
</div>
{#if pages.hasNextPage}<p use:more class="pt-3"><Button onclick={() => pages.fetchNextPage()}>{l.more}</Button></p>{/if}

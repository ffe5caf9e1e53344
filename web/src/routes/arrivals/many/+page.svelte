<script lang="ts">
  import { beforeNavigate, goto } from '$app/navigation';
  import { api, ApiProblem, data } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { grid } from '$lib/hires/hireGrid.svelte';
  import { ManyHires } from '$lib/hires/manyHires.svelte';
  import { hireKeys } from '$lib/hires/queries';
  import { words } from '$lib/hires/words';
  import { keys } from '$lib/keys/keys.svelte';
  import { optionsQuery } from '$lib/lists/queries';
  import { editingQuery, templateKeys } from '$lib/templates/queries';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import FooterSheet from '$lib/ui/FooterSheet.svelte';
  import Picker from '$lib/ui/Picker.svelte';
  import RowProblems from '$lib/ui/RowProblems.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { done, failed } from '$lib/ui/toast';
  import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { tick, untrack } from 'svelte';
  import WhoItIs from './WhoItIs.svelte';

  /** Many hires at once, one to a row: typed, filled down or pasted, each worked out by its template with what is wrong at the cell. */
  const client = useQueryClient();
  const w = $derived(words());
  const offered = editingQuery();
  const options = optionsQuery();
  const templates = createQuery(() => ({ queryKey: templateKeys.all, queryFn: () => data(api.GET('/api/templates')) }));
  const many = new ManyHires(grid, () => ({
    templates: templates.data ?? [],
    fields: (offered.data?.fields ?? []).map((f) => f.field),
    options: options.data?.options ?? []
  }));

  let timer: ReturnType<typeof setTimeout> | undefined;
  function changed() {
    many.refused = [];
    lookSoon();
  }
  function lookSoon() {
    clearTimeout(timer);
    timer = setTimeout(() => void grid.look(many.columns).catch((e: unknown) => failed(text.failure(e))), 250);
  }
  // What stands in the grid means something else once it is known what its columns take, and may have been typed on an earlier visit.
  $effect(() => {
    void many.columns;
    untrack(() => {
      if (grid.used.length > 0) lookSoon();
    });
  });
  function step(row: number, column: number) {
    document.getElementById(`cell-${row}-${column}`)?.focus();
  }
  // What was pressed goes with what it was about; the reader goes on in the row.
  async function decided(row: number) {
    changed();
    await tick();
    step(Math.min(row, grid.rows.length - 1), 0);
  }
  function onkeydown(e: KeyboardEvent, row: number, column: number) {
    if (e.key === 'ArrowDown' || e.key === 'Enter') {
      e.preventDefault();
      if (row === grid.rows.length - 1) grid.add();
      requestAnimationFrame(() => step(row + 1, column));
    } else if (e.key === 'ArrowUp') {
      e.preventDefault();
      step(row - 1, column);
    } else if (e.key.toLowerCase() === 'd' && (e.ctrlKey || e.metaKey)) {
      e.preventDefault();
      const kept = grid.fillDown(row, many.columns[column]!.key);
      if (kept > 0) done(w.many.kept(kept));
      changed();
    } else if (/^[zy]$/i.test(e.key) && (e.ctrlKey || e.metaKey)) {
      e.preventDefault();
      took(e.key.toLowerCase() === 'z' && !e.shiftKey ? grid.undo() : grid.redo());
    }
  }
  const took = (did: boolean) => {
    if (did) changed();
  };
  function onpaste(e: ClipboardEvent, row: number, column: number) {
    const pasted = e.clipboardData?.getData('text/plain') ?? '';
    if (!/[\t\n]/.test(pasted.replace(/\n$/, ''))) return;
    e.preventDefault();
    grid.paste(pasted, row, column, many.headings);
    changed();
  }
  const openMutation = createMutation(() => ({
    mutationFn: async () => {
      await grid.look(many.columns);
      if (grid.undecided > 0) return;
      const opened = await data(api.POST('/api/hires/many', { body: { hires: grid.requests(many.columns) } }));
      grid.clear();
      done(w.many.opened(opened.length));
      await client.invalidateQueries({ queryKey: hireKeys.arrivals });
      await goto('/arrivals');
    },
    onError: (e) => {
      if (e instanceof ApiProblem && e.errors.length > 0) many.refused = e.errors;
      else failed(text.failure(e));
    }
  }));
  function open() {
    if (openMutation.isPending) return;
    many.refused = [];
    openMutation.mutate();
  }
  // Within the application the grid stays as it is; only a tab that closes asks.
  beforeNavigate((navigation) => {
    if (navigation.type === 'leave' && session.user && grid.used.length > 0) navigation.cancel();
  });
  $effect(() =>
    keys.use(() => [
      { key: 'Ctrl+s', run: () => void open(), whileTyping: true },
      { key: 'Ctrl+z', label: text.t.keys.undo, run: () => took(grid.undo()) },
      { key: 'Ctrl+y', label: text.t.keys.redo, run: () => took(grid.redo()) },
      { key: 'Escape', run: () => void goto('/arrivals') }
    ])
  );
</script>

<svelte:head><title>{w.many.title} · Fid</title></svelte:head>

<div class="page pb-8">
  <div class="flex flex-wrap items-end justify-between gap-3 pt-5 pb-1">
    <h1 class="text-2xl">{w.many.title}</h1>
    <div class="w-56">
      <Picker
        id="add-column"
        label={w.many.addColumn}
        value=""
        choices={many.addable.map((f) => ({ value: f.key, label: f.label[text.language] }))}
        onchange={(v) => v && many.show(v)}
      />
    </div>
  </div>
  <p class="text-soft pb-3">{w.many.intro} <a class="link" href="/exchange/new?list=people">{w.many.sheet}</a></p>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex (it scrolls on narrow screens, so it must be reachable) -->
  <div class="overflow-x-auto" tabindex="0" role="region" aria-label={w.many.title}>
    <table class="narrow border-ink w-full border-t">
      <thead class="text-soft text-xs">
        <tr>
          <td class="w-6"></td>
          {#each many.columns as column (column.key)}
            <th class="px-1 py-1.5 text-left font-normal whitespace-nowrap">
              {column.label}
              {#if !many.isAlways(column)}
                <button
                  type="button"
                  class="hover:text-rust px-1"
                  aria-label={w.many.column(column.label)}
                  onclick={() => {
                    many.hide(column);
                    changed();
                  }}>✕</button
                >
              {/if}
            </th>
          {/each}
          <td></td>
        </tr>
      </thead>
      <tbody>
        {#each grid.rows as row, r (row.id)}
          {@const preview = grid.answer(row)?.preview}
          {@const problems = many.problemsOf(row)}
          <tr class="border-rule border-t align-top">
            <td class="text-faint pt-2 text-xs tabular-nums">{r + 1}</td>
            {#each many.columns as column, c (column.key)}
              {@const problem = problems.find((p) => p.at === c)}
              <td class="px-1 py-1">
                <input
                  id="cell-{r}-{c}"
                  class="min-h-8 w-full min-w-24 border-b bg-transparent px-1 {problem ? 'border-rust' : 'border-rule focus:border-ink'}"
                  aria-label={w.many.cell(column.label, r + 1)}
                  aria-invalid={problem ? true : undefined}
                  aria-describedby={problem?.id}
                  list={column.choices ? `choices-${column.key}` : undefined}
                  autocomplete="off"
                  placeholder={many.given(row, column)}
                  bind:value={row.cells[column.key]}
                  onbeforeinput={() => grid.before(`${row.id}/${column.key}`)}
                  oninput={changed}
                  onkeydown={(e) => onkeydown(e, r, c)}
                  onpaste={(e) => onpaste(e, r, c)}
                />
              </td>
            {/each}
            <td class="text-soft pt-2 text-xs whitespace-nowrap">
              {#if preview}
                {w.many.filled(preview.filled, preview.of)}
                {#if preview.feasible === false && preview.soonestStart}<strong class="text-ochre"
                    >{w.many.notReady(text.shortDay(preview.soonestStart))}</strong
                  >
                {:else if preview.feasible}<span class="text-sea">{w.many.ready}</span>{/if}
              {/if}
              <button
                type="button"
                class="hover:text-rust px-1"
                aria-label={w.many.remove(r + 1)}
                onclick={() => {
                  grid.remove(row.id);
                  void decided(r);
                }}>✕</button
              >
            </td>
          </tr>
          {#if problems.length > 0}
            <tr>
              <td></td>
              <td colspan={many.columns.length + 1} class="px-1 pb-2"><RowProblems {problems} go={(problem) => step(r, problem.at!)} /></td>
            </tr>
          {/if}
          <WhoItIs {many} {row} at={r} {changed} decided={() => void decided(r)} />
        {/each}
      </tbody>
    </table>
  </div>
  {#each many.columns.filter((c) => c.choices) as column (column.key)}
    <datalist id="choices-{column.key}"
      >{#each column.choices ?? [] as choice (choice.value)}<option value={choice.label}></option>{/each}</datalist
    >
  {/each}
  <p class="pt-3">
    <Button
      onclick={() => {
        grid.before();
        grid.add();
      }}>{w.many.addRow}</Button
    >
  </p>
</div>
{#if grid.used.length > 0}
  <FooterSheet label={w.many.open(grid.used.length)} tone={many.wrong.length > 0 ? 'rust' : 'sea'}>
    <p class="flex-1" role="status">
      {#if many.wrong.length > 0}
        <strong class="text-rust mr-4">{w.many.wrong(many.causes, many.wrong.length - many.causes)}</strong>
      {/if}
      {#if grid.undecided > 0}<strong class="text-ochre">{w.many.undecided(grid.undecided)}</strong>{/if}
      {#each many.besides as e (e.pointer)}
        <span class="text-rust block text-xs"
          >{e.pointer.replace(/^\/hires\/(\d+).*/, (_, n) => w.many.row(Number(n) + 1))}: {text.problem(e)}</span
        >
      {/each}
    </p>
    {#if many.needsReason || grid.why !== ''}
      <div class="w-80"><TextField id="many-why" label={w.many.why} bind:value={grid.why} maxlength={500} /></div>
    {/if}
    {#if many.past}
      <label class="flex items-center gap-2"><input type="checkbox" bind:checked={grid.backDated} onchange={changed} />{w.many.past}</label>
    {/if}
    <Button look="primary" key="Ctrl+s" disabled={openMutation.isPending || many.wrong.length > 0 || grid.undecided > 0} onclick={open}
      >{w.many.open(grid.used.length)}</Button
    >
  </FooterSheet>
{/if}

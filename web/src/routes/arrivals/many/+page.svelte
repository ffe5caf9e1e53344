<script lang="ts">
  import { beforeNavigate, goto } from '$app/navigation';
  import { api, ApiProblem, data, type Api, type ProblemEntry } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { fieldTitle } from '$lib/text/fieldLabels.svelte';
  import { grid, type GridColumn, type GridRow } from '$lib/hires/hireGrid.svelte';
  import { aboutKnown, fullName, whyKnown } from '$lib/hires/known';
  import { words } from '$lib/hires/words';
  import { keys } from '$lib/keys/keys.svelte';
  import { optionsQuery } from '$lib/lists/queries';
  import { editingQuery, templateKeys } from '$lib/templates/queries';
  import { text } from '$lib/text/index.svelte';
  import { named } from '$lib/text/named';
  import Button from '$lib/ui/Button.svelte';
  import FooterSheet from '$lib/ui/FooterSheet.svelte';
  import Picker from '$lib/ui/Picker.svelte';
  import { causesFirst, type RowProblem } from '$lib/ui/rowProblems';
  import RowProblems from '$lib/ui/RowProblems.svelte';
  import { done, failed } from '$lib/ui/toast';
  import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { tick, untrack } from 'svelte';
  import { hireKeys } from '$lib/hires/queries';

  /** Many hires at once, one to a row: typed, filled down or pasted, each worked out by its template with what is wrong at the cell. */
  const client = useQueryClient();
  const w = $derived(words());
  const k = $derived(w.opening.known);
  const offered = editingQuery();
  const options = optionsQuery();
  const templates = createQuery(() => ({ queryKey: templateKeys.all, queryFn: () => data(api.GET('/api/templates')) }));
  let refused = $state<ProblemEntry[]>([]);
  const fieldOf = (key: string) => offered.data?.fields.find((f) => f.field.key === key)?.field;
  const columns = $derived<GridColumn[]>(
    grid.shown.map((key) => {
      if (key === 'template')
        return {
          key,
          label: w.many.template,
          type: 'text',
          choices: (templates.data ?? []).filter((t) => t.opens).map((t) => ({ value: t.code, label: t.name }))
        };
      if (key === 'start') return { key, label: w.many.start, type: 'date' };
      const field = fieldOf(key);
      const choices = field?.list
        ? (options.data?.options ?? []).filter((o) => o.list === field.list && !o.retired).map((o) => ({ value: o.code, label: named(o) }))
        : field?.type === 'yesNo'
          ? [
              { value: 'yes', label: text.t.common.yes },
              { value: 'no', label: text.t.common.no }
            ]
          : field?.options?.filter((o) => !o.retired).map((o) => ({ value: o.value, label: o.label[text.language] }));
      return { key, label: fieldTitle(key), type: field?.type ?? 'text', choices };
    })
  );
  const addable = $derived(
    (offered.data?.fields ?? [])
      .map((f) => f.field)
      .filter((f) => !grid.shown.includes(f.key) && !['computed', 'file', 'person', 'choices'].includes(f.type) && f.key !== 'start_date')
  );
  const pointerOf = (column: string) => (column === 'template' || column === 'start' ? `/${column}` : `/typed/${column}`);
  function problemAt(row: GridRow, column: GridColumn): ProblemEntry | undefined {
    const at = grid.used.indexOf(row);
    if (at < 0) return undefined;
    const cell = (row.cells[column.key] ?? '').trim();
    const pointer = pointerOf(column.key);
    if (column.type === 'date' && cell !== '' && grid.day(cell) === null) return { pointer, code: 'bad-date', detail: '', follows: null };
    // A row without a template is not wrong before one has got that far.
    return (
      refused.find((e) => e.pointer === `/hires/${at}${pointer}`) ??
      grid.answer(row)?.problems.find((e) => e.pointer === pointer && (column.key !== 'template' || cell !== ''))
    );
  }
  const problemsOf = (row: GridRow): RowProblem[] =>
    causesFirst(
      columns.flatMap((column, at) => {
        const found = problemAt(row, column);
        if (!found) return [];
        const cause = found.follows && columns.find((c) => found.follows!.endsWith(pointerOf(c.key)));
        return {
          id: `problem-${row.id}-${at}`,
          at,
          label: column.label,
          says: text.problem(found)!,
          follows: cause ? cause.label : undefined
        };
      })
    );
  // Cells in which something stands that is not right, or that a row which is to be opened lacks; and those that follow from others.
  const wrong = $derived(grid.used.flatMap(problemsOf));
  const causes = $derived(wrong.filter((p) => p.follows === undefined).length);
  const past = $derived(grid.used.some((r) => (grid.day(r.cells.start ?? '') ?? '9999') < text.today));
  const given = (row: GridRow, column: GridColumn) => {
    const value = grid.answer(row)?.preview?.values.find((v) => v.field === column.key);
    return value ? (value.display ?? String(value.value ?? '')) : '';
  };
  let timer: ReturnType<typeof setTimeout> | undefined;
  function changed() {
    refused = [];
    lookSoon();
  }
  function lookSoon() {
    clearTimeout(timer);
    timer = setTimeout(() => void grid.look(columns).catch((e: unknown) => failed(text.failure(e))), 250);
  }
  // What stands in the grid means something else once it is known what its columns take, and may have been typed on an earlier visit.
  $effect(() => {
    void columns;
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
      const kept = grid.fillDown(row, columns[column]!.key);
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
    grid.paste(pasted, row, column, [...columns, ...addable.map((f) => ({ key: f.key, label: f.label[text.language] }))]);
    changed();
  }
  const openMutation = createMutation(() => ({
    mutationFn: async () => {
      await grid.look(columns);
      if (grid.undecided > 0) return;
      const opened = await data(api.POST('/api/hires/many', { body: { hires: grid.requests(columns) } }));
      grid.clear();
      done(w.many.opened(opened.length));
      await client.invalidateQueries({ queryKey: hireKeys.arrivals });
      await goto('/arrivals');
    },
    onError: (e) => {
      if (e instanceof ApiProblem && e.errors.length > 0) refused = e.errors;
      else failed(text.failure(e));
    }
  }));
  function open() {
    if (openMutation.isPending) return;
    refused = [];
    openMutation.mutate();
  }
  function sameAs(row: GridRow, person: Api['KnownPerson']) {
    grid.before();
    row.person = {
      id: person.personId,
      name: fullName(person),
      reuse: person.reusable,
      secondStint: person.secondStint,
      meant: false
    };
    // Written as the firm has it: a slip in what was typed is no change of name.
    row.cells.given_name = person.givenName;
    row.cells.family_name = person.familyName;
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
        choices={addable.map((f) => ({ value: f.key, label: f.label[text.language] }))}
        onchange={(v) => {
          if (!v) return;
          grid.before();
          grid.shown.push(v);
        }}
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
          {#each columns as column (column.key)}
            <th class="px-1 py-1.5 text-left font-normal whitespace-nowrap">
              {column.label}
              {#if !['given_name', 'family_name', 'email', 'template', 'start', 'site'].includes(column.key)}
                <button
                  type="button"
                  class="hover:text-rust px-1"
                  aria-label={w.many.column(column.label)}
                  onclick={() => {
                    grid.before();
                    grid.shown = grid.shown.filter((s) => s !== column.key);
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
          {@const maybe = grid.maybe(row)}
          {@const twin = grid.twin(row)}
          {@const problems = problemsOf(row)}
          <tr class="border-rule border-t align-top">
            <td class="text-faint pt-2 text-xs tabular-nums">{r + 1}</td>
            {#each columns as column, c (column.key)}
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
                  placeholder={given(row, column)}
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
              <td colspan={columns.length + 1} class="px-1 pb-2"><RowProblems {problems} go={(problem) => step(r, problem.at!)} /></td>
            </tr>
          {/if}
          {#if row.person}
            <tr class="bg-sea-tint">
              <td></td>
              <td colspan={columns.length + 1} class="px-1 py-1 text-xs">
                <strong>{k.chosen(row.person.name)}</strong>
                {#if row.person.secondStint}
                  <strong class="text-ochre">{k.secondStint}</strong>
                  <label class="inline-flex items-center gap-1.5"
                    ><input
                      type="checkbox"
                      bind:checked={row.person.meant}
                      onclick={() => grid.before()}
                      onchange={changed}
                    />{k.meant}</label
                  >
                {/if}
                {#if row.person.reuse.length > 0}· {k.reuse}: {row.person.reuse
                    .map((r) => `${fieldTitle(r.field)} ${r.shown}`)
                    .join(', ')}{/if}
                <button
                  type="button"
                  class="link px-2"
                  onclick={() => {
                    grid.isNot(row, row.person!.id);
                    row.person = undefined;
                    void decided(r);
                  }}>{k.else}</button
                >
              </td>
            </tr>
          {:else if maybe}
            <tr class="bg-ochre-tint">
              <td></td>
              <td colspan={columns.length + 1} class="px-1 py-1 text-xs" aria-live="polite">
                {k.title} <strong>{fullName(maybe)}</strong>
                {aboutKnown(maybe)}, {whyKnown(maybe)}
                {#if maybe.secondStint}<a class="link px-2" href="/people/{maybe.employmentId}">{k.record}</a>{/if}
                <button
                  type="button"
                  class="link px-2"
                  onclick={() => {
                    sameAs(row, maybe);
                    void decided(r);
                  }}>{k.choose}</button
                >
                <button
                  type="button"
                  class="link px-2"
                  onclick={() => {
                    grid.isNot(row, maybe.personId);
                    void decided(r);
                  }}>{k.else}</button
                >
              </td>
            </tr>
          {/if}
          {#if twin}
            <tr class="bg-ochre-tint">
              <td></td>
              <td colspan={columns.length + 1} class="px-1 py-1 text-xs" aria-live="polite">
                <strong>{w.many.twin(grid.rows.indexOf(twin) + 1)}</strong>
                <button
                  type="button"
                  class="link px-2"
                  onclick={() => {
                    grid.remove(row.id);
                    void decided(r);
                  }}>{w.many.remove(r + 1)}</button
                >
                <button
                  type="button"
                  class="link px-2"
                  onclick={() => {
                    grid.isNot(row, twin.id);
                    void decided(r);
                  }}>{w.many.two}</button
                >
              </td>
            </tr>
          {/if}
        {/each}
      </tbody>
    </table>
  </div>
  {#each columns.filter((c) => c.choices) as column (column.key)}
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
  <FooterSheet label={w.many.open(grid.used.length)} tone={wrong.length > 0 ? 'rust' : 'sea'}>
    <p class="flex-1" role="status">
      {#if wrong.length > 0}<strong class="text-rust mr-4">{w.many.wrong(causes, wrong.length - causes)}</strong>{/if}
      {#if grid.undecided > 0}<strong class="text-ochre">{w.many.undecided(grid.undecided)}</strong>{/if}
      {#each refused.filter((e) => !columns.some((c) => e.pointer.endsWith(pointerOf(c.key)))) as e (e.pointer)}
        <span class="text-rust block text-xs"
          >{e.pointer.replace(/^\/hires\/(\d+).*/, (_, n) => w.many.row(Number(n) + 1))}: {text.problem(e)}</span
        >
      {/each}
    </p>
    {#if past}
      <label class="flex items-center gap-2"><input type="checkbox" bind:checked={grid.backDated} onchange={changed} />{w.many.past}</label>
    {/if}
    <Button look="primary" key="Ctrl+s" disabled={openMutation.isPending || wrong.length > 0 || grid.undecided > 0} onclick={open}
      >{w.many.open(grid.used.length)}</Button
    >
  </FooterSheet>
{/if}

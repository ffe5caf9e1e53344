<script lang="ts">
  import { download } from '$lib/factor/download';
  import { page } from '$app/state';
  import { api, ApiProblem, data, type Api } from '$lib/api/client';
  import { words } from '$lib/fields/words';
  import ListPicker from '$lib/lists/ListPicker.svelte';
  import { optionsQuery } from '$lib/lists/queries';
  import { upload } from '$lib/api/upload';
  import { valueOf } from '$lib/text/typed';
  import { failed } from '$lib/ui/toast';
  import { text } from '$lib/text/index.svelte';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
  import GapCell from './GapCell.svelte';
  import { fieldKeys } from '$lib/fields/queries';

  /** Who lacks a field, and a grid to fill it down: each line is saved by itself, with its error at the cell. */
  const key = $derived(page.params.key!);
  const w = $derived(words().coverage);
  let department = $state('');
  let site = $state('');
  const options = optionsQuery();
  const coverage = createQuery(() => ({
    queryKey: fieldKeys.coverage(key, department, site),
    queryFn: () =>
      data(
        api.GET('/api/fields/{key}/coverage', {
          params: { path: { key }, query: { department: department || undefined, site: site || undefined } }
        })
      ),
    placeholderData: keepPreviousData,
    // A line that was filled stays in sight until one comes back: the grid must not move under the hands.
    staleTime: Infinity,
    refetchOnWindowFocus: false
  }));

  interface Line {
    value: string;
    version: string;
    state: 'open' | 'saving' | 'saved';
    error?: string;
  }
  let lines = $state<Record<string, Line>>({});
  const lineOf = (row: Api['CoverageRow']): Line => lines[row.employmentId] ?? { value: '', version: row.version, state: 'open' };
  const field = $derived(coverage.data?.field);
  const label = $derived(field?.label[text.language] ?? key);

  function set(row: Api['CoverageRow'], value: string) {
    lines[row.employmentId] = { ...lineOf(row), value, state: 'open', error: undefined };
  }
  async function save(row: Api['CoverageRow']) {
    const line = lineOf(row);
    if (line.state !== 'open' || line.value.trim() === '') return;
    lines[row.employmentId] = { ...line, state: 'saving' };
    try {
      const saved = await data(
        api.PUT('/api/records/{id}', {
          params: { path: { id: row.employmentId } },
          body: { changes: { [key]: valueOf(field, line.value) }, from: null, why: null },
          headers: { 'If-Match': line.version }
        })
      );
      lines[row.employmentId] = { ...line, version: saved.version, state: 'saved' };
    } catch (e) {
      const current = e instanceof ApiProblem && e.status === 412 ? (e.current as Api['RecordResponse']) : undefined;
      lines[row.employmentId] = {
        ...line,
        version: current?.version ?? line.version,
        state: 'open',
        error: e instanceof ApiProblem && e.errors[0] ? text.problem(e.errors[0]) : text.failure(e)
      };
    }
  }
  const rows = $derived(coverage.data?.people ?? []);
  let unknown = $state<string[]>([]);
  const query = $derived(
    new URLSearchParams({ language: text.language, ...(department ? { department } : {}), ...(site ? { site } : {}) }).toString()
  );
  /** What a filled sheet says goes into the grid, where each line is saved or says what is wrong with it. */
  async function take(file: File | undefined) {
    if (!file) return;
    try {
      const read = await upload<Api['ReadGap']>(`/api/fields/${key}/gap`, file);
      unknown = read.unknown;
      for (const { employmentId, typed } of read.values) {
        const row = rows.find((r) => r.employmentId === employmentId);
        if (!row) continue;
        set(row, typed);
        await save(row);
      }
    } catch (e) {
      failed(e instanceof ApiProblem && e.errors[0] ? text.problem(e.errors[0])! : text.failure(e));
    }
  }
  function copyDown(at: number) {
    const above = rows[at - 1];
    if (above) set(rows[at]!, lineOf(above).value);
  }
  function pasteDown(at: number, column: string[]) {
    column.forEach((value, i) => {
      const row = rows[at + i];
      if (!row) return;
      set(row, value.trim());
      void save(row);
    });
  }
  function go(at: number) {
    document.getElementById(`gap-${rows[at]?.employmentId}`)?.focus();
  }
</script>

<svelte:head><title>{w.title(label)} · Fid</title></svelte:head>

{#if !coverage.data}
  <Waiting error={coverage.error} retry={() => coverage.refetch()} />
{:else}
  <div class="page pb-8">
    <p class="pt-4 text-xs"><a class="link" href="/fields">{words().title}</a></p>
    <h1 class="text-2xl">{w.title(label)}</h1>
    <p class="pb-2">
      {w.summary(coverage.data.filled, coverage.data.of)}
      {#if coverage.data.lacking === 0}{w.nobody}{/if}
    </p>
    <div class="grid max-w-lg grid-cols-2 gap-5">
      <ListPicker id="coverage-department" label={w.department} list="departments" bind:value={department} />
      <ListPicker id="coverage-site" label={w.site} list="sites" bind:value={site} />
    </div>
    {#if rows.length > 0}
      {#if field?.type !== 'file'}
        <p class="flex flex-wrap gap-x-5 pb-1 text-sm">
          <a class="link" href="/api/fields/{key}/gap.xlsx?{query}" download onclick={download}>{w.getSheet}</a>
          <label class="link cursor-pointer focus-within:outline-2"
            >{w.takeSheet}<input
              type="file"
              class="sr-only"
              accept=".xlsx,.csv,.tsv,.txt"
              onchange={(e) => {
                void take(e.currentTarget.files?.[0]);
                e.currentTarget.value = '';
              }}
            /></label
          >
        </p>
        {#if unknown.length > 0}<p class="text-ochre pb-1 text-sm" role="status">{w.unknown(unknown.join(', '))}</p>{/if}
        <p class="text-soft pb-1 text-xs">{w.note}</p>
      {/if}
      <table class="w-full text-left">
        <thead class="text-soft border-ink border-b text-xs"
          ><tr
            ><th class="py-1 font-normal">{w.person}</th><th class="hidden font-normal sm:table-cell">{w.department}</th><th
              class="w-1/2 font-normal sm:w-2/5">{label}</th
            ></tr
          ></thead
        >
        <tbody>
          {#each rows as row, at (row.employmentId)}
            {@const line = lineOf(row)}
            <tr class="border-rule border-b align-top">
              <th scope="row" class="py-1.5 pr-3 font-semibold"
                ><a class="hover:underline" href="/people/{row.employmentId}"><bdi>{row.name}</bdi></a>
                <span class="text-soft block text-xs font-normal">{row.number} · {row.job ?? ''}</span></th
              >
              <td class="text-soft hidden py-1.5 pr-3 text-xs sm:table-cell">{row.department ?? ''}<br />{row.site ?? ''}</td>
              <td>
                <GapCell
                  id="gap-{row.employmentId}"
                  field={field!}
                  label="{label}, {row.name}"
                  entries={(options.data?.options ?? []).filter((o) => o.list === field!.list && !o.retired)}
                  value={line.value}
                  note={line.state === 'saved' ? `✓ ${w.saved}` : ''}
                  error={line.error}
                  oninput={(v) => set(row, v)}
                  onleave={() => save(row)}
                  oncopy={() => copyDown(at)}
                  onpaste={(column) => pasteDown(at, column)}
                  onmove={(by) => go(at + by)}
                />
              </td>
            </tr>
          {/each}
        </tbody>
      </table>
      {#if coverage.data.lacking > rows.length}<p class="text-ochre pt-2">{w.more(coverage.data.lacking - rows.length)}</p>{/if}
    {/if}
  </div>
{/if}

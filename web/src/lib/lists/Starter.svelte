<script lang="ts">
  import { api, ApiProblem, data, type Api, type ProblemEntry } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import { named } from '$lib/text/named';
  import Button from '$lib/ui/Button.svelte';
  import Picker from '$lib/ui/Picker.svelte';
  import { done, failed } from '$lib/ui/toast';
  import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { words } from './words';
  import { listKeys } from './queries';
  import { again } from '$lib/api/again';

  /** A list in setting up: what it has, and the entries it can begin with, to be taken as they are, edited first, or left. */
  interface Props {
    row: Api['SetupList'];
    list?: Api['ListSummary'];
    label: string;
    about: string;
    /** The country the firm is taken to be in. */
    country?: string | null;
    /** The countries whose holidays the list can begin with; none for most lists. */
    countries: string[];
  }
  let { row, list, label, about, country, countries }: Props = $props();
  const w = $derived(words());
  const client = useQueryClient();
  let editing = $state(false);
  let rows = $state<Record<string, string>[]>([]);
  let errors = $state<ProblemEntry[]>([]);
  let chosen = $state<string>();
  const ofCountry = createQuery(() => ({
    queryKey: listKeys.starters(chosen),
    queryFn: () => data(api.GET('/api/setup/starters/calendars', { params: { query: chosen ? { country: chosen } : {} } })),
    enabled: countries.length > 0 && chosen !== undefined
  }));
  const starter = $derived((chosen === undefined ? undefined : ofCountry.data) ?? row.starter);
  $effect(() => {
    // Another country, other holidays: also in rows that are being edited.
    if (ofCountry.data && editing) rows = ofCountry.data.map((r) => ({ ...r }));
  });
  const regions = $derived(new Intl.DisplayNames(text.t.locale, { type: 'region' }));
  const choices = $derived([
    { value: 'none', label: w.setupPage.noHolidays },
    ...countries.map((c) => ({ value: c, label: regions.of(c) ?? c })).sort((a, b) => a.label.localeCompare(b.label, text.t.locale))
  ]);
  const holidayNames = $derived(
    [
      ...new Set(
        String(starter[0]?.holidays ?? '')
          .split(';')
          .map((h) => h.trim().replace(/^(?:--\d\d(?:-\d\d| -?\d?[A-Z]{2})|\d{4}-\d\d-\d\d|easter(?:[+-]\d+)?) /, ''))
      )
    ]
      .filter(Boolean)
      .join(' · ')
  );
  const columns = $derived(Object.keys(starter[0] ?? {}));
  /** Which entries are not right, by their names, and what to do about each. */
  const wrong = $derived(
    errors.map((e) => {
      const [, , at, column] = e.pointer.split('/');
      const cells = rows[Number(at)];
      return `${cells?.name || cells?.code || Number(at) + 1}, ${heading(column ?? '')}: ${text.problem(e)}`;
    })
  );
  const heading = (key: string) =>
    ({ code: w.code, name: w.name, name_de: w.nameDe })[key] ?? list?.columns.find((c) => c.key === key)?.label[text.language] ?? key;

  const taking = createMutation(() => ({
    mutationFn: async (taken: Record<string, string>[]) => {
      await data(api.POST('/api/setup/starters/{list}', { params: { path: { list: row.key } }, body: { rows: taken } }));
      done(w.setupPage.taken(taken.length));
      editing = false;
      await again(client, listKeys.all, ['templates']);
    },
    onError: (e) => {
      if (e instanceof ApiProblem && e.errors.length > 0) {
        errors = e.errors;
        if (!editing) edit();
      } else failed(text.failure(e));
    }
  }));
  function take(taken: Record<string, string>[]) {
    errors = [];
    taking.mutate(taken);
  }
  function edit() {
    rows = starter.map((r) => ({ ...r }));
    editing = true;
  }
</script>

<div class="flex flex-wrap items-start justify-between gap-x-6 gap-y-2">
  <div class="min-w-0 flex-1 basis-64">
    <h2 class="text-base">
      {#if list}<a class="hover:underline" href="/lists/{row.key}">{label}</a>{:else}<a class="hover:underline" href="/templates">{label}</a
        >{/if}
      {#if row.count === 0 && row.needed}<span class="text-ochre text-xs font-semibold">{w.setupPage.needed}</span>{/if}
    </h2>
    <p class="text-soft text-xs">{about}</p>
    {#if row.count === 0 && row.starter.length > 0 && !editing}
      <p class="pt-0.5 text-xs">
        {w.setupPage.starter(starter.length)}: {starter.map((r) => named({ name: r.name ?? '', nameDe: r.name_de })).join(' · ')}
      </p>
      {#if countries.length > 0}
        <div class="max-w-64 pt-1">
          <Picker
            id="starter-country"
            label={w.setupPage.holidaysOf}
            value={(chosen === undefined ? country : chosen) || 'none'}
            {choices}
            onchange={(v) => (chosen = v === 'none' ? '' : v)}
          />
        </div>
        <p class="text-soft text-xs">{holidayNames}</p>
      {/if}
    {:else if row.count === 0 && row.starter.length === 0}<p class="pt-0.5 text-xs">{w.setupPage.none}</p>{/if}
  </div>
  <div class="flex flex-wrap gap-2">
    {#if row.count > 0}
      <span class="text-sea self-center font-semibold">✓ {w.setupPage.has(row.count)}</span>
    {:else if row.starter.length > 0 && !editing}
      <Button onclick={edit}>{w.setupPage.edit}</Button>
      <Button look={row.needed ? 'primary' : 'plain'} disabled={taking.isPending} onclick={() => take(starter as Record<string, string>[])}
        >{w.setupPage.takeAll}</Button
      >
    {:else if row.starter.length === 0 && list}
      <a class="link self-center text-xs font-semibold" href="/lists/{row.key}/+">{w.add}</a>
      <a class="link self-center text-xs font-semibold" href="/exchange/new?list={row.key}">{w.fromSheet}</a>
    {/if}
  </div>
</div>
{#if editing}
  {#if wrong.length > 0}
    <ul class="text-rust pt-2 text-xs font-semibold" role="alert">
      {#each wrong as line (line)}<li>{line}</li>{/each}
    </ul>
  {/if}
  <!-- svelte-ignore a11y_no_noninteractive_tabindex (it scrolls on narrow screens, so it must be reachable) -->
  <div class="overflow-x-auto pt-2" tabindex="0" role="region" aria-label={label}>
    <table class="narrow w-full text-left text-xs">
      <thead class="text-soft"
        ><tr
          >{#each columns as column (column)}<th class="px-1 font-normal">{heading(column)}</th>{/each}<th
            ><span class="sr-only">{w.setupPage.leaveOut}</span></th
          ></tr
        ></thead
      >
      <tbody>
        {#each rows as cells, i (i)}
          <tr class="border-rule border-t">
            {#each columns as column (column)}
              {@const error = errors.find((e) => e.pointer === `/rows/${i}/${column}`)}
              <td class="px-1 py-0.5 align-top">
                <input
                  aria-label="{heading(column)}, {i + 1}"
                  aria-invalid={error ? true : undefined}
                  bind:value={cells[column]}
                  class="min-h-7 w-full min-w-24 border-b bg-transparent {error ? 'border-rust' : 'border-rule'}"
                />
                {#if error}<p class="text-rust text-2xs font-semibold" role="alert">{text.problem(error)}</p>{/if}
              </td>
            {/each}
            <td
              ><button
                type="button"
                class="text-soft hover:text-rust px-2"
                aria-label="{w.setupPage.leaveOut}, {i + 1}"
                onclick={() => rows.splice(i, 1)}>✕</button
              ></td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
  <div class="flex justify-end gap-2 pt-2">
    <Button onclick={() => (editing = false)}>{w.setupPage.later}</Button>
    <Button look="primary" disabled={taking.isPending || rows.length === 0} onclick={() => take(rows)}>{w.setupPage.take}</Button>
  </div>
{/if}

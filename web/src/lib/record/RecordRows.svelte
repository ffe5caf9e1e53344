<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import { tick } from 'svelte';
  import { type Editing } from './editing.svelte';
  import RecordField from './RecordField.svelte';
  import { addressIn, keyIn, rowIn, rowsWith, type Row } from './rows';
  import { shownValue } from './show';
  import { words } from './words';

  /** The rows of a field as a ruled table: each is opened where it stands, changed, ended or taken away; saved with the rest of the record. */
  interface Props {
    field: Api['FieldResponse'];
    record: Api['RecordResponse'];
    editing: Editing;
    lists: Api['ListOption'][];
    given: Map<string, Api['SetValue']>;
    misfits: Map<string, Api['Misfit']>;
    needed?: string;
    /** What a field, or a column in a row, holds as it is typed. */
    typed: (address: string) => string;
  }
  let { field, record, editing, lists, given, misfits, needed, typed }: Props = $props();
  const t = $derived(words());
  const w = $derived(t.rows);
  const table = $derived(field.rows!);
  const rows = $derived(rowsWith(field, editing.changes));
  const label = $derived(field.label[text.language]);
  // Columns that hold nothing take no room until a row is opened.
  const columns = $derived(
    table.columns.filter(
      (c) => [table.key, table.from, table.until].includes(c.key) || rows.some((r) => typed(addressIn(c.key, r.id)) !== '')
    )
  );
  const about = $derived(columns.find((c) => c.key === table.key) ?? columns[0]);
  const rest = $derived(columns.filter((c) => c !== about));
  const hasStandings = $derived(rows.some((r) => r.standing));
  const mayChange = (f: Pick<Api['FieldResponse'], 'access'>) => f.access === 'edit' || f.access === 'ask';
  const mayAdd = $derived(mayChange(field) && table.columns.some((c) => mayChange(c) && c.type !== 'computed'));
  const until = $derived(table.columns.find((c) => c.key === table.until && mayChange(c)));
  const idOf = (row: Row) => (row === rows[0] ? `field-${field.key}` : `row-${row.id}`);
  const isOpen = (row: Row) => editing.opened === addressIn(field.key, row.id);
  const errorsOf = (row: Row) => editing.errors.filter((e) => rowIn(e.pointer) === row.id);

  function shown(row: Row, column: Api['FieldResponse']): string {
    const cell = row.cells.get(column.key)!;
    const value = typed(cell.key);
    if (value === '') return '';
    if (!(cell.key in editing.changes) && cell.display) return cell.display;
    if (column.type === 'file') return t.rows.fresh;
    if (column.type === 'money') return text.money(Number(value)) || value;
    return column.type === 'number' ? text.number(Number(value)) || value : shownValue(column, value, lists);
  }
  const isNeeded = (row: Row, column: Api['FieldResponse']) =>
    column.required === 'always' && !row.gone && typed(addressIn(column.key, row.id)) === '';
  // Until when is said where the row itself does not say it: another of the same kind goes on.
  const standing = (row: Row, s: NonNullable<Row['standing']>) => {
    if (s.state === 'missing') return w.missing;
    const own = table.until ? typed(addressIn(table.until, row.id)) : '';
    return w[s.state](s.until && s.until !== own ? text.day(s.until) : '');
  };
  const tone = { missing: 'text-rust font-semibold', expired: 'text-rust font-semibold', expiring: 'text-ochre font-semibold', valid: '' };

  async function toggle(row: Row) {
    editing.opened = isOpen(row) ? undefined : addressIn(field.key, row.id);
    await tick();
    if (editing.opened) focusFirst(row);
    else document.getElementById(idOf(row))?.focus();
  }
  const focusFirst = (row: Row) =>
    document.getElementById(`cells-${row.id}`)?.querySelector<HTMLElement>('input:not([readonly]), select, textarea, button')?.focus();
  // The column a new row begins with is there at once, empty: by it the row is known.
  async function add() {
    const id = crypto.randomUUID();
    const first = table.columns.find((c) => c.key === table.key && mayChange(c)) ?? table.columns.find(mayChange)!;
    editing.begin(record, addressIn(first.key, id));
    editing.opened = addressIn(field.key, id);
    await tick();
    focusFirst(rows.find((r) => r.id === id)!);
  }
  function takeAway(row: Row) {
    editing.takeAway(record, field.key, row.id);
    editing.opened = undefined;
  }
  function move(e: KeyboardEvent, row: Row) {
    if (e.key === 'Delete' && mayTakeAway(row)) {
      e.preventDefault();
      takeAway(row);
      return;
    }
    const by = e.key === 'ArrowDown' ? 1 : e.key === 'ArrowUp' ? -1 : 0;
    const to = by === 0 || e.altKey ? undefined : rows[rows.indexOf(row) + by];
    if (!to) return;
    e.preventDefault();
    document.getElementById(idOf(to))?.focus();
  }
  const mayTakeAway = (row: Row) => !row.gone && (row.fresh || table.mayRemove);
</script>

<div class="col-span-full min-w-0 pt-1 pb-3">
  <table class="w-full max-sm:block">
    <caption class="text-soft pb-1 text-left text-xs max-sm:block">
      {label}{#if needed}<span class="text-ochre pl-2 font-semibold">{t.neededFrom(needed)}</span>{/if}
    </caption>
    {#if rows.length > 0}
      <thead class="border-ink text-faint text-2xs border-b text-left max-sm:hidden">
        <tr>
          {#each [...(about ? [about] : []), ...rest] as column (column.key)}
            <th scope="col" class="py-1 pr-3 font-normal">{column.label[text.language]}</th>
          {/each}
          {#if hasStandings}<th scope="col" class="py-1 font-normal">{w.state}</th>{/if}
        </tr>
      </thead>
    {/if}
    <tbody class="max-sm:block">
      {#each rows as row (row.id)}
        {@const wrong = errorsOf(row)}
        <tr
          class="border-rule border-b align-baseline max-sm:flex max-sm:flex-wrap max-sm:gap-x-3 {row.gone
            ? 'text-faint line-through'
            : ''}"
        >
          <th scope="row" class="py-1 pr-3 text-left max-sm:w-full">
            <button
              id={idOf(row)}
              type="button"
              class="link min-h-6 text-left font-semibold {wrong.length > 0 ? 'text-rust' : ''}"
              aria-expanded={isOpen(row)}
              disabled={row.gone}
              onclick={() => void toggle(row)}
              onkeydown={(e) => move(e, row)}>{(about && shown(row, about)) || w.unnamed}</button
            >
            {#if row.fresh}<span class="text-sea text-2xs font-normal">{w.fresh}</span>{/if}
            {#if row.gone}<button
                type="button"
                class="link ml-2 inline-block text-xs font-normal"
                onclick={() => editing.putBack(field.key, row.id)}>{w.putBack}</button
              >{/if}
          </th>
          {#each rest as column (column.key)}
            {@const value = shown(row, column)}
            <td class="py-1 pr-3 text-sm break-words {value === '' && !isNeeded(row, column) ? 'max-sm:hidden' : ''}">
              {#if value !== ''}<span class="text-faint text-2xs mr-1 sm:hidden">{column.label[text.language]}</span><bdi
                  class={addressIn(column.key, row.id) in editing.changes ? 'font-semibold' : ''}>{value}</bdi
                >{:else if isNeeded(row, column)}<span class="text-ochre text-xs font-semibold">{w.needed}</span>{/if}
            </td>
          {/each}
          {#if hasStandings}
            <td class="py-1 text-xs {row.standing ? tone[row.standing.state] : ''}">{row.standing ? standing(row, row.standing) : ''}</td>
          {/if}
        </tr>
        {#if isOpen(row) && !row.gone}
          <tr class="border-rule border-b max-sm:block">
            <td colspan={columns.length + (hasStandings ? 1 : 0)} class="max-sm:block">
              <!-- svelte-ignore a11y_no_noninteractive_element_interactions (Esc in any of its fields closes it) -->
              <div
                id="cells-{row.id}"
                role="group"
                aria-label="{label}, {(about && shown(row, about)) || w.fresh}"
                class="border-sea bg-sheet my-1 border-l-4 px-3 pt-2 pb-1"
                onkeydown={(e) => {
                  if (e.key !== 'Escape' || e.defaultPrevented) return;
                  e.preventDefault();
                  e.stopPropagation();
                  void toggle(row);
                }}
              >
                <div class="grid grid-cols-1 gap-x-5 gap-y-1 min-[28rem]:grid-cols-2 md:grid-cols-4">
                  {#each table.columns as column (column.key)}
                    {@const cell = row.cells.get(column.key)!}
                    {@const within = column.parent ? typed(addressIn(`${field.key}.${column.parent}`, row.id)) || typed(column.parent) : ''}
                    <RecordField
                      field={cell}
                      {record}
                      {editing}
                      {lists}
                      given={given.get(cell.key)}
                      misfit={misfits.get(cell.key)}
                      needed={column.required && typed(cell.key) === ''
                        ? column.required === 'always'
                          ? 'now'
                          : column.required
                        : undefined}
                      {within}
                    />
                  {/each}
                </div>
                {#each wrong.filter((e) => keyIn(e.pointer.slice('/changes/'.length)) === field.key) as e (e.pointer)}
                  <p role="alert" class="text-rust text-xs font-semibold">{text.problem(e)}</p>
                {/each}
                <div class="flex flex-wrap gap-3 pt-1 pb-2">
                  <Button key="Escape" onclick={() => void toggle(row)}>{w.close}</Button>
                  {#if until && !row.fresh && table.from && typed(addressIn(table.from, row.id)) !== '' && typed(addressIn(until.key, row.id)) === ''}
                    <Button onclick={() => editing.set(record, row.cells.get(until.key)!, record.today)}
                      >{w.today(until.label[text.language])}</Button
                    >
                  {/if}
                  {#if mayTakeAway(row)}<Button look="danger" onclick={() => takeAway(row)}>{w.takeAway}</Button>{/if}
                </div>
              </div>
            </td>
          </tr>
        {/if}
      {:else}
        <tr class="border-rule border-b max-sm:block"><td class="text-soft py-1 text-sm max-sm:block">{w.none}</td></tr>
      {/each}
    </tbody>
  </table>
  {#if mayAdd}
    <p class="pt-1">
      <button
        type="button"
        id={rows.length === 0 ? `field-${field.key}` : undefined}
        class="link min-h-6 text-xs"
        aria-label={w.addTo(label)}
        onclick={() => void add()}>{w.add}</button
      >
    </p>
  {/if}
</div>

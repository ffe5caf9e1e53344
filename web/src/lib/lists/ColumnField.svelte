<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import DateField from '$lib/ui/DateField.svelte';
  import Line from '$lib/ui/Line.svelte';
  import Picker from '$lib/ui/Picker.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import type { EntryEditing } from './editing.svelte';
  import FormulaField from './FormulaField.svelte';
  import ListPicker from './ListPicker.svelte';
  import ManyPicker from './ManyPicker.svelte';
  import Bands from './parts/Bands.svelte';
  import Brackets from './parts/Brackets.svelte';
  import Cycle from './parts/Cycle.svelte';
  import Heads from './parts/Heads.svelte';
  import Holidays from './parts/Holidays.svelte';
  import Number from './parts/Number.svelte';
  import Options from './parts/Options.svelte';
  import Rates from './parts/Rates.svelte';
  import Requirements from './parts/Requirements.svelte';
  import RestDays from './parts/RestDays.svelte';
  import type { Shift } from './parts/shift';
  import Shifts from './parts/Shifts.svelte';
  import { words } from './words';

  /** One column of an entry, with the editor that fits what it holds. */
  let { column, editing, id }: { column: Api['ColumnResponse']; editing: EntryEditing; id: string } = $props();
  const w = $derived(words());
  const label = $derived(column.label[text.language]);
  const note = $derived(column.note[text.language]);
  const error = $derived(text.problem(editing.error(column.key)));
  const value = $derived(editing.values[column.key]);
  const asText = $derived(typeof value === 'string' ? value : '');
  const set = (next: unknown) => editing.set(column.key, next);
  const parts = $derived({ id, label, error, value: value as never, onchange: set });
</script>

{#if column.type === 'bands'}<Bands {...parts} />
{:else if column.type === 'heads'}<Heads {...parts} />
{:else if column.type === 'requirements'}<Requirements {...parts} />
{:else if column.type === 'rates'}<Rates {...parts} />
{:else if column.type === 'brackets'}<Brackets {...parts} />
{:else if column.type === 'holidays'}<Holidays {...parts} />
{:else if column.type === 'shifts'}<Shifts {...parts} />
{:else if column.type === 'options'}<Options {...parts} />
{:else if column.type === 'restDays'}<RestDays {...parts} />
{:else if column.type === 'cycle'}<Cycle {...parts} shifts={(editing.values.shifts ?? []) as Shift[]} />
{:else if column.type === 'entry'}
  <ListPicker
    {id}
    {label}
    {note}
    {error}
    list={column.list!}
    value={asText}
    without={column.list === editing.list.key ? [editing.code] : []}
    onchange={set}
  />
{:else if column.type === 'entries'}
  <ManyPicker {id} {label} {note} {error} list={column.list!} value={(value ?? []) as string[]} onchange={set} />
{:else if column.type === 'choice'}
  <Picker
    {id}
    {label}
    {note}
    {error}
    value={asText}
    choices={column.options!.map((o) => ({ value: o.value, label: o.label[text.language] }))}
    onchange={set}
  />
{:else if column.type === 'date'}
  <DateField {id} {label} note={asText ? undefined : note} {error} value={asText || null} onchange={set} />
{:else if column.type === 'yesNo'}
  <Line {id} {label} {note} {error}>
    <label class="flex min-h-8 items-center gap-2 font-medium">
      <input {id} type="checkbox" class="accent-sea size-4" checked={value === true} onchange={(e) => set(e.currentTarget.checked)} />
      {value === true ? w.yes : w.no}
    </label>
  </Line>
{:else if column.type === 'number' || column.type === 'whole'}
  <Line {id} {label} {note} {error}><Number {id} {label} {value} onchange={set} /></Line>
{:else if column.type === 'longText'}
  <Line {id} {label} {note} {error}>
    <textarea
      {id}
      rows="3"
      maxlength="3000"
      dir="auto"
      value={asText}
      class="w-full bg-transparent px-0.5 py-1 font-medium outline-none"
      aria-describedby="{id}-note"
      oninput={(e) => set(e.currentTarget.value)}></textarea>
  </Line>
{:else if column.type === 'formula'}
  <FormulaField {id} {label} {note} {error} value={asText} list={editing.list.key} without={editing.code} onchange={set} />
{:else}
  <TextField
    {id}
    {label}
    {note}
    {error}
    value={asText}
    maxlength={1000}
    autocomplete="off"
    inputmode={column.type === 'phone' ? 'tel' : column.type === 'link' ? 'url' : undefined}
    oninput={(e) => set(e.currentTarget.value)}
  />
{/if}

<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import Picker from '$lib/ui/Picker.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import AccessEditor from './AccessEditor.svelte';
  import { keyFrom, nameOf, tidy, type Field } from './configuration';
  import HoldsEditor from './HoldsEditor.svelte';
  import OptionsEditor from './OptionsEditor.svelte';
  import RequiredPicker from './RequiredPicker.svelte';
  import { roleName } from './roleName';
  import { words } from './words';

  /** The columns of rows, in order; each opens to a field of its own. */
  interface Props {
    field: Field;
    server: Api['FieldsResponse'];
    /** Whether the rows ship with Fid: what it reads itself stays. */
    shipped: boolean;
    /** The record's other fields, which formulas of columns may read. */
    others: Field[];
    errorOf: (part: string) => string | undefined;
    characterOf: (part: string) => number | undefined;
    edit: (change: Partial<Field>) => void;
  }
  let { field, server, shipped, others, errorOf, characterOf, edit }: Props = $props();
  const w = $derived(words().sheet);
  const columns = $derived(field.columns ?? []);
  let open = $state<string>();
  const choices = $derived(columns.map((c) => ({ value: c.key, label: nameOf(c, text.language) })));
  const dates = $derived(columns.filter((c) => c.type === 'date').map((c) => ({ value: c.key, label: nameOf(c, text.language) })));
  // A column that was there when the rows went live goes by its key in records.
  const live = $derived(
    (server.configuration as unknown as { fields: Field[] }).fields.find((f) => f.key === field.key)?.columns?.map((c) => c.key) ?? []
  );

  const set = (key: string, change: Partial<Field>) =>
    edit({ columns: columns.map((c) => (c.key === key ? tidy({ ...c, ...change }) : c)) });
  function relabel(column: Field, language: string, label: string) {
    const follows =
      language === 'en' && !live.includes(column.key) && column.key.replace(/_\d+$/, '') === keyFrom(column.label?.en ?? '', []);
    const key = follows
      ? keyFrom(
          label,
          columns.filter((c) => c !== column)
        )
      : column.key;
    const named = (k: string | undefined) => (k === column.key ? key : k);
    edit({
      columns: columns.map((c) => (c.key === column.key ? tidy({ ...c, key, label: { ...c.label, [language]: label } }) : c)),
      rowKey: named(field.rowKey),
      dates: field.dates && { from: named(field.dates.from)!, until: named(field.dates.until)! }
    });
    if (open === column.key) open = key;
  }
  function add() {
    const label = { en: 'New column', de: 'Neue Spalte' };
    const key = keyFrom(label.en, columns);
    edit({ columns: [...columns, { key, label, type: 'text' }] });
    open = key;
    requestAnimationFrame(() => document.getElementById(`column-${columns.length}-label-en`)?.focus());
  }
  function remove(key: string) {
    edit({
      columns: columns.filter((c) => c.key !== key),
      rowKey: field.rowKey === key ? undefined : field.rowKey,
      dates: field.dates && [field.dates.from, field.dates.until].includes(key) ? undefined : field.dates
    });
    open = undefined;
  }
  const up = (i: number) => edit({ columns: [...columns.slice(0, i - 1), columns[i]!, columns[i - 1]!, ...columns.slice(i + 1)] });
  const setDates = (change: Partial<{ from: string; until: string }>) => {
    const next = { from: field.dates?.from ?? '', until: field.dates?.until ?? '', ...change };
    edit({ dates: next.from === '' && next.until === '' ? undefined : next });
  };
</script>

<fieldset class="col-span-full min-w-0 pt-1">
  <legend class="text-soft text-xs">{w.columns}</legend>
  <ul>
    {#each columns as column, i (column.key)}
      {@const name = nameOf(column, text.language)}
      {@const partOf = (part: string) => `columns/${i}/${part}`}
      <li class="border-rule border-b">
        <div class="flex items-center gap-3 py-1">
          <button
            type="button"
            class="link min-h-6 font-semibold {errorOf(`columns/${i}`) ? 'text-rust' : ''}"
            aria-expanded={open === column.key}
            aria-label={w.openColumn(name)}
            onclick={() => (open = open === column.key ? undefined : column.key)}>{name}</button
          >
          <span class="text-soft text-xs">{words().types[column.type]}</span>
          {#if i > 0}<button type="button" class="link ml-auto px-1" aria-label={w.columnUp(name)} onclick={() => up(i)}>↑</button>{/if}
        </div>
        {#if open === column.key}
          <div class="border-sea bg-sheet mb-1 grid min-w-0 grid-cols-1 gap-x-5 gap-y-1 border-l-4 px-3 pt-2 sm:grid-cols-2 lg:grid-cols-4">
            {#each ['en', 'de'] as language (language)}
              <TextField
                id="column-{i}-label-{language}"
                label={w.label(language)}
                value={column.label?.[language] ?? ''}
                maxlength={100}
                error={errorOf(partOf(`label/${language}`))}
                onchange={(e) => relabel(column, language, e.currentTarget.value.trim())}
              />
            {/each}
            <HoldsEditor
              id="column-{i}"
              field={column}
              {server}
              fields={[...columns.filter((c) => c !== column), ...others.filter((o) => columns.every((c) => c.key !== o.key))]}
              shipped={shipped && live.includes(column.key)}
              isColumn
              errorOf={(part) => errorOf(partOf(part))}
              characterOf={(part) => characterOf(partOf(part))}
              edit={(change) => set(column.key, change)}
            />
            <RequiredPicker
              id="column-{i}-required"
              field={column}
              stages={server.stages}
              error={errorOf(partOf('required')) ?? errorOf(partOf('access'))}
              edit={(change) => set(column.key, change)}
            />
            {#if (column.type === 'choice' || column.type === 'choices') && !column.list}
              <div class="col-span-full">
                <OptionsEditor options={column.options ?? []} parents={[]} onchange={(options) => set(column.key, { options })} />
                {#if errorOf(partOf('options'))}<p role="alert" class="text-rust text-xs font-semibold">
                    {errorOf(partOf('options'))}
                  </p>{/if}
              </div>
            {/if}
            <p class="text-soft col-span-full pt-1 text-xs">{w.followsRows}</p>
            <AccessEditor
              field={column.access ? column : { ...column, access: field.access }}
              roles={server.roles}
              called={(role) => roleName(role, server.roleLabels)}
              edit={(change) => set(column.key, change)}
            />
            <div class="col-span-full flex flex-wrap items-center gap-4 pb-2">
              <label class="flex items-center gap-2"
                ><input
                  type="checkbox"
                  checked={column.unique ?? false}
                  onchange={(e) => set(column.key, { unique: e.currentTarget.checked })}
                />{w.unique}</label
              >
              <label class="flex items-center gap-2"
                ><input
                  type="checkbox"
                  checked={column.sensitive ?? false}
                  onchange={(e) => set(column.key, { sensitive: e.currentTarget.checked })}
                />{w.sensitive}</label
              >
              {#if errorOf(partOf('sensitive'))}<span role="alert" class="text-rust text-xs font-semibold"
                  >{errorOf(partOf('sensitive'))}</span
                >{/if}
              {#if !shipped || !live.includes(column.key)}
                <button type="button" class="link text-rust text-xs" onclick={() => remove(column.key)}>{w.removeColumn}</button>
              {/if}
            </div>
          </div>
        {/if}
      </li>
    {/each}
  </ul>
  <p class="py-1"><button type="button" class="link min-h-6 text-xs" onclick={add}>{w.addColumn}</button></p>
  {#if errorOf('columns')}<p role="alert" class="text-rust text-xs font-semibold">{errorOf('columns')}</p>{/if}
  <div class="grid grid-cols-1 gap-x-5 gap-y-1 sm:grid-cols-3">
    <Picker
      id="field-row-key"
      label={w.rowKey}
      value={field.rowKey ?? ''}
      {choices}
      note={w.rowKeyNote}
      error={errorOf('rowKey')}
      onchange={(rowKey) => !shipped && edit({ rowKey: rowKey || undefined })}
    />
    {#each ['from', 'until'] as const as end (end)}
      <Picker
        id="field-dates-{end}"
        label={end === 'from' ? w.datesFrom : w.datesUntil}
        value={field.dates?.[end] ?? ''}
        choices={dates}
        error={errorOf(`dates/${end}`)}
        onchange={(key) => !shipped && setDates({ [end]: key })}
      />
    {/each}
  </div>
</fieldset>

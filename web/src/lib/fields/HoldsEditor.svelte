<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { listsQuery } from '$lib/lists/queries';
  import FieldInput from '$lib/record/FieldInput.svelte';
  import { typedOf, valueOf } from '$lib/text/typed';
  import { text } from '$lib/text/index.svelte';
  import Picker from '$lib/ui/Picker.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { fileGroups, nameOf, types, type Field } from './configuration';
  import FormulaInput from './FormulaInput.svelte';
  import { words } from './words';

  /** What a field holds: its kind, where its values come from, what it starts with, and its limits. A column of rows is a field too. */
  interface Props {
    id: string;
    field: Field;
    server: Api['FieldsResponse'];
    /** The fields a formula may read and a choice be narrowed by. */
    fields: Field[];
    /** Whether it ships, so that its kind stays. */
    shipped: boolean;
    isColumn?: boolean;
    errorOf: (part: string) => string | undefined;
    characterOf: (part: string) => number | undefined;
    edit: (change: Partial<Field>) => void;
  }
  let { id, field, server, fields, shipped, isColumn = false, errorOf, characterOf, edit }: Props = $props();
  const w = $derived(words().sheet);
  const lists = listsQuery();
  const isChoice = $derived(field.type === 'choice' || field.type === 'choices');
  const takesList = $derived(field.type === 'listEntry' || (isChoice && !field.options?.length));
  const isText = $derived(['text', 'longText', 'identifier'].includes(field.type));
  const isBounded = $derived(isText || ['number', 'money', 'date'].includes(field.type));
  const starts = $derived(field.default === undefined ? 'nothing' : 'formula' in field.default ? 'formula' : 'value');
  const sample = $derived({
    key: field.key,
    type: field.type,
    label: { en: w.value, de: w.value },
    list: field.list ?? null,
    options:
      field.options?.map((o) => ({
        value: o.value,
        label: { en: o.label?.en || o.value, de: o.label?.de || o.label?.en || o.value },
        retired: o.retired ?? false,
        within: null
      })) ?? null
  });
  function takesGroup(group: (typeof fileGroups)[number], taken: boolean) {
    const groups = fileGroups.filter((g) => (g === group ? taken : field.accepts?.includes(g)));
    edit({ accepts: groups.length > 0 ? groups : undefined });
  }
  const limit = (typed: string) => {
    const value = valueOf({ type: field.type === 'date' ? 'date' : 'number' }, typed);
    return value === null ? undefined : (value as number | string);
  };
</script>

<Picker
  id="{id}-type"
  label={w.type}
  value={field.type}
  choices={types.filter((t) => !isColumn || t !== 'rows').map((t) => ({ value: t, label: words().types[t] }))}
  note={shipped ? w.shipped : undefined}
  error={errorOf('type')}
  onchange={(type) =>
    !shipped &&
    type &&
    edit({
      type: type as Field['type'],
      options: undefined,
      list: undefined,
      default: undefined,
      accepts: undefined,
      min: undefined,
      max: undefined,
      columns: type === 'rows' ? [] : undefined,
      rowKey: undefined,
      dates: undefined,
      ...(type === 'rows' ? { unique: undefined, sensitive: undefined, onChange: undefined, pattern: undefined } : {})
    })}
/>
{#if takesList}
  <Picker
    id="{id}-list"
    label={w.list}
    value={field.list ?? ''}
    choices={(lists.data ?? []).map((l) => ({ value: l.key, label: l.label[text.language] }))}
    note={shipped ? w.shipped : undefined}
    error={errorOf('list')}
    onchange={(list) => !shipped && edit({ list: list || undefined })}
  />
{/if}
{#if isChoice}
  <Picker
    id="{id}-parent"
    label={w.parent}
    value={field.parent ?? ''}
    choices={fields
      .filter((f) => f.key !== field.key && (f.options || f.type === 'listEntry'))
      .map((f) => ({ value: f.key, label: nameOf(f, text.language) }))}
    error={errorOf('parent')}
    onchange={(parent) => edit({ parent: parent || undefined })}
  />
{/if}
{#if field.type !== 'rows'}
  <Picker
    id="{id}-start"
    label={w.start}
    value={starts}
    choices={(['nothing', 'value', 'formula'] as const).map((s) => ({ value: s, label: w.starts[s] }))}
    onchange={(s) =>
      edit({ default: s === 'formula' ? { formula: 'null' } : s === 'value' ? { value: field.type === 'yesNo' ? false : '' } : undefined })}
  />
  {#if field.default && 'value' in field.default}
    <FieldInput
      id="{id}-default"
      field={sample}
      value={typedOf({ type: field.type, value: field.default.value })}
      error={errorOf('default')}
      onchange={(v) => edit({ default: { value: valueOf(field, v) ?? '' } })}
    />
  {:else if field.default}
    <div class="sm:col-span-2">
      <FormulaInput
        id="{id}-default"
        label={w.formula}
        value={field.default.formula}
        {fields}
        functions={server.functions}
        error={errorOf('default/formula') ?? errorOf('default')}
        character={characterOf('default/formula')}
        onchange={(formula) => edit({ default: { formula } })}
      />
    </div>
  {/if}
  {#if isText}
    <TextField
      id="{id}-pattern"
      label={w.pattern}
      value={field.pattern ?? ''}
      maxlength={300}
      spellcheck={false}
      note={w.patternNote}
      error={errorOf('pattern')}
      onchange={(e) => edit({ pattern: e.currentTarget.value || undefined })}
    />
  {/if}
  {#if isBounded}
    {#each ['min', 'max'] as const as end (end)}
      <TextField
        id="{id}-{end}"
        label={w[end]}
        value={String(field[end] ?? '')}
        inputmode={field.type === 'date' ? undefined : 'decimal'}
        onchange={(e) => edit({ [end]: limit(e.currentTarget.value) })}
      />
    {/each}
  {/if}
  {#if field.type === 'file'}
    <TextField
      id="{id}-max"
      label={w.mostMegabytes}
      value={String(field.max ?? '')}
      inputmode="decimal"
      placeholder="10"
      onchange={(e) => edit({ max: limit(e.currentTarget.value) })}
    />
    <fieldset class="flex min-w-0 flex-wrap items-center gap-x-5 gap-y-1 py-1 sm:col-span-3" aria-describedby="{id}-accepts-note">
      <legend class="text-soft float-left pr-3 text-xs">{w.accepts}</legend>
      {#each fileGroups as group (group)}
        <label class="flex items-center gap-1.5"
          ><input
            type="checkbox"
            checked={field.accepts?.includes(group) ?? false}
            onchange={(e) => takesGroup(group, e.currentTarget.checked)}
          />{text.t.common.fileGroups[group]}</label
        >
      {/each}
      <span id="{id}-accepts-note" class="text-soft text-xs">{w.acceptsNote}</span>
    </fieldset>
  {/if}
{/if}

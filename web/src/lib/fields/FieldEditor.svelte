<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { listsQuery, nameOf as entryName, optionsQuery } from '$lib/lists/queries';
  import FieldInput from '$lib/record/FieldInput.svelte';
  import { typedOf, valueOf } from '$lib/record/editing.svelte';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Picker from '$lib/ui/Picker.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { accessTo, fileGroups, keyFrom, nameOf, renamed, types, type Access, type Field } from './configuration';
  import type { Drafting } from './drafting.svelte';
  import { sentenceOf } from './findings';
  import FormulaInput from './FormulaInput.svelte';
  import FormulaResult from './FormulaResult.svelte';
  import OptionsEditor from './OptionsEditor.svelte';
  import WhenInput from './WhenInput.svelte';
  import { words } from './words';

  /** Everything about one field. What is changed goes into the draft at once. */
  interface Props {
    field: Field;
    drafting: Drafting;
    server: Api['FieldsResponse'];
    /** Whether it is live, so that its key and whose fact it is stay. */
    live: boolean;
    onremove: () => void;
    /** The field goes by another key now. */
    onrename: (key: string) => void;
    oncopy: () => void;
  }
  let { field, drafting, server, live, onremove, onrename, oncopy }: Props = $props();
  const w = $derived(words().sheet);
  const lists = listsQuery();
  const options = optionsQuery();
  const fields = $derived(drafting.configuration.fields);
  const shipped = $derived(server.shipped.includes(field.key));
  const edit = (change: Partial<Field>) => void drafting.edit(field.key, change);
  const finding = (part: string) => drafting.review?.findings.find((f) => f.fields[0] === field.key && f.part === part);
  const errorOf = (part: string) => {
    const found = finding(part);
    return found && sentenceOf(found, drafting);
  };

  const isChoice = $derived(field.type === 'choice' || field.type === 'choices');
  const takesList = $derived(field.type === 'listEntry' || (isChoice && !field.options?.length));
  const accesses = $derived<Access[]>(field.type === 'computed' ? ['view', 'none'] : ['edit', 'view', 'none']);
  const isText = $derived(['text', 'longText', 'identifier'].includes(field.type));
  const isBounded = $derived(isText || ['number', 'money', 'date'].includes(field.type));
  const parents = $derived.by(() => {
    const parent = fields.find((f) => f.key === field.parent);
    if (parent?.options)
      return parent.options.filter((o) => !o.retired).map((o) => ({ value: o.value, label: o.label?.[text.language] || o.value }));
    return (options.data?.options ?? [])
      .filter((o) => parent?.list === o.list && !o.retired)
      .map((o) => ({ value: o.code, label: entryName(options.data!.options, o.list, o.code) }));
  });
  const required = $derived(typeof field.required === 'object' ? `from:${field.required.from}` : (field.required ?? 'never'));
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
  const others = $derived(fields.filter((f) => f.key !== field.key));
  function rename(key: string) {
    if (key === '' || key === field.key || live || shipped) return;
    const to = keyFrom(key, others);
    void drafting.put(renamed(drafting.configuration, field.key, to));
    onrename(to);
  }
  /** Until it is published its key follows its label, as long as nobody chose another. */
  function relabel(language: string, label: string) {
    const follows = !live && !shipped && language === 'en' && field.key.replace(/_\d+$/, '') === keyFrom(field.label?.en ?? '', []);
    edit({ label: { ...field.label, [language]: label } });
    if (follows) rename(label);
  }
  function takesGroup(group: (typeof fileGroups)[number], taken: boolean) {
    const groups = fileGroups.filter((g) => (g === group ? taken : field.accepts?.includes(g)));
    edit({ accepts: groups.length > 0 ? groups : undefined });
  }
  const limit = (typed: string) => {
    const value = valueOf({ type: field.type === 'date' ? 'date' : 'number' }, typed);
    return value === null ? undefined : (value as number | string);
  };
</script>

<div class="grid min-w-0 grid-cols-1 gap-x-5 gap-y-1 sm:grid-cols-2 lg:grid-cols-4">
  {#each ['en', 'de'] as language (language)}
    <TextField
      id="field-label-{language}"
      label={w.label(language)}
      value={field.label?.[language] ?? ''}
      maxlength={100}
      error={errorOf(`label/${language}`)}
      onchange={(e) => relabel(language, e.currentTarget.value.trim())}
    />
  {/each}
  <TextField
    id="field-key"
    label={w.key}
    value={field.key}
    readonly={shipped || live}
    maxlength={60}
    spellcheck={false}
    note={shipped ? w.shipped : live ? w.keyNote : w.keyFollows}
    onchange={(e) => rename(e.currentTarget.value)}
    error={errorOf('key')}
  />
  <Picker
    id="field-section"
    label={w.section}
    value={field.section ?? ''}
    choices={drafting.configuration.sections.map((s) => ({ value: s.key, label: nameOf(s, text.language) }))}
    onchange={(section) => edit({ section })}
  />
  <Picker
    id="field-type"
    label={w.type}
    value={field.type}
    choices={types.map((t) => ({ value: t, label: words().types[t] }))}
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
        max: undefined
      })}
  />
  <Picker
    id="field-of"
    label={w.of}
    value={field.of ?? 'employment'}
    choices={(['person', 'employment'] as const).map((o) => ({ value: o, label: w.ofs[o] }))}
    note={live ? w.keyNote : undefined}
    onchange={(of) => !live && edit({ of: of === 'person' ? 'person' : undefined })}
  />
  {#if takesList}
    <Picker
      id="field-list"
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
      id="field-parent"
      label={w.parent}
      value={field.parent ?? ''}
      choices={fields
        .filter((f) => f.key !== field.key && (f.options || f.type === 'listEntry'))
        .map((f) => ({ value: f.key, label: nameOf(f, text.language) }))}
      error={errorOf('parent')}
      onchange={(parent) => edit({ parent: parent || undefined })}
    />
  {/if}
  <Picker
    id="field-required"
    label={w.required}
    value={required}
    choices={[
      { value: 'never', label: words().never },
      { value: 'always', label: words().always },
      ...server.stages.map((s) => ({ value: `from:${s.key}`, label: words().from(s.name) }))
    ]}
    error={errorOf('required') ?? errorOf('access')}
    onchange={(v) => v && edit({ required: v === 'never' ? undefined : v === 'always' ? 'always' : { from: v.slice(5) } })}
  />
  <Picker
    id="field-start"
    label={w.start}
    value={starts}
    choices={(['nothing', 'value', 'formula'] as const).map((s) => ({ value: s, label: w.starts[s] }))}
    onchange={(s) =>
      edit({ default: s === 'formula' ? { formula: 'null' } : s === 'value' ? { value: field.type === 'yesNo' ? false : '' } : undefined })}
  />
  {#if field.default && 'value' in field.default}
    <FieldInput
      id="field-default"
      field={sample}
      value={typedOf({ type: field.type, value: field.default.value })}
      error={errorOf('default')}
      onchange={(v) => edit({ default: { value: valueOf(field, v) ?? '' } })}
    />
  {:else if field.default}
    <div class="sm:col-span-2">
      <FormulaInput
        id="field-default"
        label={w.formula}
        value={field.default.formula}
        {fields}
        functions={server.functions}
        error={errorOf('default/formula') ?? errorOf('default')}
        character={finding('default/formula')?.character ?? undefined}
        onchange={(formula) => edit({ default: { formula } })}
      />
    </div>
  {/if}
  {#if isText}
    <TextField
      id="field-pattern"
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
        id="field-{end}"
        label={w[end]}
        value={String(field[end] ?? '')}
        inputmode={field.type === 'date' ? undefined : 'decimal'}
        onchange={(e) => edit({ [end]: limit(e.currentTarget.value) })}
      />
    {/each}
  {/if}
  {#if field.type === 'file'}
    <TextField
      id="field-max"
      label={w.mostMegabytes}
      value={String(field.max ?? '')}
      inputmode="decimal"
      placeholder="10"
      onchange={(e) => edit({ max: limit(e.currentTarget.value) })}
    />
    <fieldset class="flex min-w-0 flex-wrap items-center gap-x-5 gap-y-1 py-1 sm:col-span-3" aria-describedby="field-accepts-note">
      <legend class="text-soft float-left pr-3 text-xs">{w.accepts}</legend>
      {#each fileGroups as group (group)}
        <label class="flex items-center gap-1.5"
          ><input
            type="checkbox"
            checked={field.accepts?.includes(group) ?? false}
            onchange={(e) => takesGroup(group, e.currentTarget.checked)}
          />{text.t.record.fileGroups[group]}</label
        >
      {/each}
      <span id="field-accepts-note" class="text-soft text-xs">{w.acceptsNote}</span>
    </fieldset>
  {/if}
  {#each ['requiredWhen', 'showWhen'] as const as part (part)}
    <div class="min-w-0 sm:col-span-2">
      <WhenInput
        id="field-{part}"
        label={w[part]}
        value={field[part] ?? ''}
        fields={others}
        functions={server.functions}
        note={w.showNote}
        otherwise={part === 'showWhen' ? words().always : w.asRequired}
        error={errorOf(part)}
        character={finding(part)?.character ?? undefined}
        onchange={(formula) => edit({ [part]: formula || undefined })}
      />
    </div>
  {/each}
  {#if isChoice && !field.list}
    <div class="col-span-full">
      <OptionsEditor options={field.options ?? []} {parents} onchange={(o) => edit({ options: o })} />
      {#if errorOf('options')}<p role="alert" class="text-rust text-xs font-semibold">{errorOf('options')}</p>{/if}
    </div>
  {/if}
  <div class="col-span-full">
    {#each field.onChange ?? [] as rule, i (i)}
      <div class="grid grid-cols-1 items-start gap-x-5 sm:grid-cols-[14rem_1fr_auto]">
        <Picker
          id="field-rule-{i}"
          label={w.rules}
          value={rule.set}
          choices={fields
            .filter((f) => f.key !== field.key && f.type !== 'computed')
            .map((f) => ({ value: f.key, label: nameOf(f, text.language) }))}
          error={errorOf(`onChange/${i}/set`)}
          onchange={(set) => edit({ onChange: field.onChange!.map((r, k) => (k === i ? { ...r, set } : r)) })}
        />
        <FormulaInput
          id="field-rule-{i}-formula"
          label={w.to}
          value={rule.formula}
          {fields}
          functions={server.functions}
          error={errorOf(`onChange/${i}/formula`)}
          character={finding(`onChange/${i}/formula`)?.character ?? undefined}
          onchange={(formula) => edit({ onChange: field.onChange!.map((r, k) => (k === i ? { ...r, formula } : r)) })}
        />
        <button type="button" class="link mt-5 text-xs" onclick={() => edit({ onChange: field.onChange!.filter((_, k) => k !== i) })}
          >{w.removeRule}</button
        >
      </div>
    {/each}
    <div class="w-56">
      <!-- What it sets it to is for somebody to say: until then it is named as a trap. -->
      <Picker
        id="field-rule-add"
        label={w.addRule}
        value=""
        choices={others.filter((f) => f.type !== 'computed').map((f) => ({ value: f.key, label: nameOf(f, text.language) }))}
        onchange={(set) => set && edit({ onChange: [...(field.onChange ?? []), { set, formula: '' }] })}
      />
    </div>
  </div>
  <fieldset class="col-span-full flex min-w-0 flex-wrap gap-x-5 gap-y-1 py-1">
    <legend class="text-soft float-left pr-3 text-xs">{w.access}</legend>
    {#each server.roles as role (role)}
      <label class="flex items-center gap-1.5 text-xs"
        >{words().roles[role] ?? role}
        <select
          class="border-rule bg-sheet min-h-7 border-b font-semibold"
          value={accessTo(field, role)}
          onchange={(e) => edit({ access: { ...field.access, [role]: e.currentTarget.value as 'edit' | 'view' | 'none' } })}
        >
          {#each accesses as access (access)}<option value={access}>{words().access[access]}</option>{/each}
        </select></label
      >
    {/each}
  </fieldset>
  {#if (field.default && 'formula' in field.default) || field.showWhen || field.requiredWhen}
    <FormulaResult {field} {drafting} />
  {/if}
  <div class="col-span-full flex flex-wrap items-center gap-4 pt-1">
    <label class="flex items-center gap-2"
      ><input
        type="checkbox"
        checked={field.unique ?? false}
        onchange={(e) => edit({ unique: e.currentTarget.checked })}
      />{w.unique}</label
    >
    <label class="flex items-center gap-2"
      ><input
        type="checkbox"
        checked={field.sensitive ?? false}
        onchange={(e) => edit({ sensitive: e.currentTarget.checked })}
      />{w.sensitive}</label
    >
    {#if field.showWhen === 'false'}<Button onclick={() => edit({ showWhen: undefined })}>{w.show}</Button>
    {:else}<Button onclick={() => edit({ showWhen: 'false' })}>{w.hide}</Button>{/if}
    <Button onclick={oncopy}>{w.copy}</Button>
    {#if !shipped}<Button look="danger" onclick={onremove}>{w.remove}</Button>{/if}
  </div>
</div>

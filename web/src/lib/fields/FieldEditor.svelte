<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { optionsQuery } from '$lib/lists/queries';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Picker from '$lib/ui/Picker.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { nameOf, type Field } from './configuration';
  import type { Drafting } from './drafting.svelte';
  import AccessEditor from './AccessEditor.svelte';
  import ColumnsEditor from './ColumnsEditor.svelte';
  import HoldsEditor from './HoldsEditor.svelte';
  import FormulaInput from './FormulaInput.svelte';
  import { FieldEditing } from './fieldEditing.svelte';
  import FormulaResult from './FormulaResult.svelte';
  import OptionsEditor from './OptionsEditor.svelte';
  import RequiredPicker from './RequiredPicker.svelte';
  import WhenInput from './WhenInput.svelte';
  import { roleName } from './roleName';
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
  const options = optionsQuery();
  const editing = new FieldEditing(() => ({
    field,
    live,
    drafting,
    shipped: server.shipped,
    entries: options.data?.options ?? [],
    onrename
  }));
  const { errorOf, edit, rename, relabel, characterOf } = editing;
  const fields = $derived(drafting.configuration.fields);
  const shipped = $derived(editing.shipped);
  const parents = $derived(editing.parents);
  const others = $derived(editing.others);
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
    id="field-of"
    label={w.of}
    value={field.of ?? 'employment'}
    choices={(['person', 'employment'] as const).map((o) => ({ value: o, label: w.ofs[o] }))}
    note={live ? w.keyNote : undefined}
    onchange={(of) => !live && edit({ of: of === 'person' ? 'person' : undefined })}
  />
  <HoldsEditor id="field" {field} {server} fields={others} {shipped} {errorOf} {characterOf} {edit} />
  <RequiredPicker id="field-required" {field} stages={server.stages} error={errorOf('required') ?? errorOf('access')} {edit} />
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
        character={characterOf(part)}
        onchange={(formula) => edit({ [part]: formula || undefined })}
      />
    </div>
  {/each}
  {#if editing.hasOptions}
    <div class="col-span-full">
      <OptionsEditor options={field.options ?? []} {parents} onchange={(o) => edit({ options: o })} />
      {#if errorOf('options')}<p role="alert" class="text-rust text-xs font-semibold">{errorOf('options')}</p>{/if}
    </div>
  {/if}
  {#if field.type === 'rows'}
    <ColumnsEditor {field} {server} {shipped} {others} {errorOf} {characterOf} {edit} />
  {/if}
  {#if field.type !== 'rows'}
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
            character={characterOf(`onChange/${i}/formula`)}
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
  {/if}
  <AccessEditor {field} roles={server.roles} called={(role) => roleName(role, server.roleLabels)} {edit} />
  {#if (field.default && 'formula' in field.default) || field.showWhen || field.requiredWhen}
    <FormulaResult {field} {drafting} />
  {/if}
  <div class="col-span-full flex flex-wrap items-center gap-4 pt-1">
    {#if field.type !== 'rows'}
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
    {/if}
    {#if field.showWhen === 'false'}<Button onclick={() => edit({ showWhen: undefined })}>{w.show}</Button>
    {:else}<Button onclick={() => edit({ showWhen: 'false' })}>{w.hide}</Button>{/if}
    <Button onclick={oncopy}>{w.copy}</Button>
    {#if !shipped}<Button look="danger" onclick={onremove}>{w.remove}</Button>{/if}
  </div>
</div>

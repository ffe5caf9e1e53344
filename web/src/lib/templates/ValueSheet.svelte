<script lang="ts">
  import type { Api } from '$lib/api/client';
  import FormulaInput from '$lib/fields/FormulaInput.svelte';
  import FieldInput from '$lib/record/FieldInput.svelte';
  import { isNumeric, typedOf, valueOf } from '$lib/text/typed';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import FooterSheet from '$lib/ui/FooterSheet.svelte';
  import type { LayerLook } from './layers';
  import { shownJson } from './shown';
  import { formulaOf } from './spec';
  import type { TemplateEditing } from './editing.svelte';
  import { words } from './words';

  /** A value of a template: as it stands or by a formula, and what it displaces. */
  interface Props {
    editing: TemplateEditing;
    field: Api['FieldResponse'];
    offered: Api['TemplateField'][];
    functions: string[];
    looks: LayerLook[];
    mayEdit: boolean;
  }
  let { editing, field, offered, functions, looks, mayEdit }: Props = $props();
  const w = $derived(words());
  const own = $derived((editing.spec.values as Record<string, unknown>)[field.key]);
  const isOwn = $derived(field.key in editing.spec.values);
  const formula = $derived(formulaOf(own));
  const worked = $derived(editing.example?.values.find((v) => v.field === field.key));
  const below = $derived(isOwn ? worked?.displaced[0] : undefined);
  const finding = $derived((editing.example?.findings ?? []).find((f) => f.part === 'values' && f.key === field.key));
  const error = $derived(finding ? text.problem({ pointer: '', code: finding.code, detail: finding.message }) : undefined);
  const nameAt = (id: string) => looks.find((l) => l.id === id)?.name ?? id;
  const fields = $derived(offered.map((o) => ({ key: o.field.key, label: o.field.label, type: o.field.type })));
  const comes = $derived(formula && worked && !error ? w.value.comes(shownJson(worked.value, field, worked.display)) : undefined);
  // What is typed stays as it is typed, whatever it comes to: "18." is on its way to 18.10.
  let typing = $state<string>();
  const typed = $derived(typing ?? typedOf({ type: field.type, value: (own ?? null) as never }));
  const note = $derived(below ? w.value.displaces(below.display ?? shownJson(below.value, field), nameAt(below.from)) : undefined);
  function set(value: unknown) {
    typing = undefined;
    editing.setValue(field.key, value);
  }
</script>

<FooterSheet label={field.label[text.language]}>
  <div class="w-full max-w-[34rem] min-w-64 flex-1">
    {#if !isOwn}
      <p>
        <strong>{field.label[text.language]}</strong>
        {#if worked}{shownJson(worked.value, field, worked.display)}
          <span class="text-soft text-xs">{w.value.from(nameAt(worked.from))}</span>{/if}
      </p>
    {:else if formula !== undefined}
      <FormulaInput
        id="value-formula"
        label="{field.label[text.language]}: {w.value.formulaLabel}"
        value={formula}
        {fields}
        {functions}
        note={comes ?? note}
        {error}
        character={finding?.character ?? undefined}
        onchange={(v) => editing.setValue(field.key, { formula: v })}
      />
    {:else}
      <FieldInput
        id="value-literal"
        {field}
        value={typed}
        numeric={isNumeric(field) ? typed : undefined}
        shown={worked?.display ?? ''}
        {note}
        {error}
        onchange={(v) => {
          typing = v;
          editing.setValue(field.key, valueOf(field, v));
        }}
      />
    {/if}
  </div>
  {#if mayEdit}
    <div class="flex flex-wrap gap-3">
      {#if !isOwn}
        <Button look="primary" key="e" onclick={() => set(worked?.value ?? null)}>{w.value.override}</Button>
        <Button onclick={() => set(null)}>{w.value.empty}</Button>
      {:else}
        {#if formula === undefined}
          <Button onclick={() => set({ formula: '' })}>{w.value.asFormula}</Button>
        {:else}
          <Button onclick={() => set(worked?.value ?? null)}>{w.value.literal}</Button>
        {/if}
        <Button onclick={() => set(undefined)}>{below ? w.value.lower : w.value.takeAway}</Button>
      {/if}
    </div>
  {/if}
  <p class="text-soft w-full text-xs" role="status">
    {editing.saving ? w.saving : editing.isDraft && editing.by ? w.kept(editing.by) : ''}
  </p>
</FooterSheet>

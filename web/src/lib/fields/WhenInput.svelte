<script lang="ts">
  import { nameOf as entryName, optionsQuery } from '$lib/lists/queries';
  import ListPicker from '$lib/lists/ListPicker.svelte';
  import { text } from '$lib/text/index.svelte';
  import Chips from '$lib/ui/Chips.svelte';
  import Picker from '$lib/ui/Picker.svelte';
  import { clausesOf, formulaOfClauses, type Clause } from './clauses';
  import { nameOf, type Field } from './configuration';
  import FormulaInput from './FormulaInput.svelte';
  import { words } from './words';

  /** When something holds: chosen field by field, or written as a formula where choices do not say it. */
  interface Props {
    id: string;
    label: string;
    value: string;
    fields: Field[];
    functions: string[];
    note?: string;
    /** What it means where nothing is said. */
    otherwise: string;
    error?: string | undefined;
    character?: number | undefined;
    onchange: (formula: string) => void;
  }
  let { id, label, value, fields, functions, note, otherwise, error, character, onchange }: Props = $props();
  const w = $derived(words().plain);
  const options = optionsQuery();
  const plain = $derived(clausesOf(value));
  let written = $state(false);
  // A choice that has no value yet stands here only.
  let begun = $state<string>();
  const clauses = $derived<Clause[]>([
    ...(plain ?? []),
    ...(begun && !(plain ?? []).some((c) => c.field === begun) ? [{ field: begun, values: [] }] : [])
  ]);
  const asFormula = $derived(written || plain === undefined);
  const choosable = $derived(fields.filter((f) => f.type === 'listEntry' || f.type === 'choice'));
  const fieldOf = (key: string) => fields.find((f) => f.key === key);
  const put = (next: Clause[]) => onchange(formulaOfClauses(next) ?? '');
  const setValues = (field: string, values: string[]) => put(clauses.map((c) => (c.field === field ? { field, values } : c)));
  const valueName = (field: string, v: string) => {
    const f = fieldOf(field);
    return f?.list
      ? entryName(options.data?.options ?? [], f.list, v)
      : (f?.options?.find((o) => o.value === v)?.label?.[text.language] ?? v);
  };
</script>

{#if asFormula}
  <FormulaInput {id} {label} {value} {fields} {functions} {note} {error} {character} {onchange} />
  {#if plain !== undefined}<button type="button" class="link text-xs" onclick={() => (written = false)}>{w.asChoices}</button>{/if}
{:else}
  <fieldset class="min-w-0">
    <legend class="text-soft text-xs">{label}{clauses.length === 0 ? `: ${otherwise}` : ''}</legend>
    {#each clauses as clause, i (clause.field)}
      {@const field = fieldOf(clause.field)}
      {@const name = field ? nameOf(field, text.language) : clause.field}
      <div class="flex flex-wrap items-start gap-x-3">
        <p class="min-w-32 pt-5">{i > 0 ? `${w.and} ` : ''}<strong>{name}</strong> {w.is}</p>
        <div class="min-w-40 flex-1">
          {#if field?.list}
            <ListPicker
              id="{id}-{clause.field}"
              label={w.valueOf(name)}
              list={field.list}
              value=""
              without={clause.values}
              onchange={(v) => v && setValues(clause.field, [...clause.values, v])}
            />
          {:else}
            <Picker
              id="{id}-{clause.field}"
              label={w.valueOf(name)}
              value=""
              choices={(field?.options ?? [])
                .filter((o) => !o.retired && !clause.values.includes(o.value))
                .map((o) => ({ value: o.value, label: o.label?.[text.language] || o.value }))}
              onchange={(v) => v && setValues(clause.field, [...clause.values, v])}
            />
          {/if}
          <Chips
            label={w.valueOf(name)}
            chosen={clause.values.map((v) => ({ value: v, label: valueName(clause.field, v) }))}
            takeAway={(v) => `${w.takeAway}: ${valueName(clause.field, v)}`}
            ontake={(v) =>
              setValues(
                clause.field,
                clause.values.filter((o) => o !== v)
              )}
          />
        </div>
        <button
          type="button"
          class="text-soft hover:text-rust min-h-8 pt-5"
          aria-label="{w.takeAway}: {name}"
          onclick={() => {
            if (begun === clause.field) begun = undefined;
            put(clauses.filter((c) => c.field !== clause.field));
          }}>✕</button
        >
      </div>
    {/each}
    <div class="flex flex-wrap items-end gap-4">
      <div class="w-52">
        <Picker
          id="{id}-add"
          label={w.add}
          value=""
          choices={choosable
            .filter((f) => !clauses.some((c) => c.field === f.key))
            .map((f) => ({ value: f.key, label: nameOf(f, text.language) }))}
          {error}
          onchange={(v) => {
            if (v) begun = v;
          }}
        />
      </div>
      <button type="button" class="link mb-5 text-xs" onclick={() => (written = true)}>{w.asFormula}</button>
    </div>
  </fieldset>
{/if}

<script lang="ts">
  import { api, data, type Api } from '$lib/api/client';
  import FormulaInput from '$lib/fields/FormulaInput.svelte';
  import { nameOf, optionsQuery } from '$lib/lists/queries';
  import ListPicker from '$lib/lists/ListPicker.svelte';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Chips from '$lib/ui/Chips.svelte';
  import Picker from '$lib/ui/Picker.svelte';
  import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
  import { clausesOf, formulaOfClauses, type Clause } from '$lib/fields/clauses';
  import { words } from './words';
  import { templateKeys } from './queries';

  /** Where an add-on, a task or a stage applies: chosen field by field, or written as a formula; and whom that would be now. */
  interface Props {
    /** Tells the fields of one condition from those of another on the page. */
    id: string;
    title: string;
    /** What stands there while there is no condition. */
    always: string;
    when: string | null;
    finding?: Api['TemplateFinding'];
    /** Whether it is told to whom it would apply now. */
    whom?: boolean;
    offered: Api['TemplateField'][];
    functions: string[];
    mayEdit: boolean;
    onchange: (when: string | null) => void;
  }
  let { id, title, always, when, finding, whom = false, offered, functions, mayEdit, onchange }: Props = $props();
  const w = $derived(words());
  const options = optionsQuery();
  const plain = $derived(clausesOf(when));
  let written = $state(false);
  // A clause that has no value yet stands here only.
  let begun = $state<string[]>([]);
  const clauses = $derived<Clause[]>([
    ...(plain ?? []),
    ...begun.filter((f) => !(plain ?? []).some((c) => c.field === f)).map((field) => ({ field, values: [] }))
  ]);
  const asFormula = $derived(written || plain === undefined);
  // Whether the person was here before is no field of the record, but can be asked for like one.
  const returning = $derived({
    key: 'returning',
    type: 'choice' as const,
    list: null,
    label: { en: w.when.returning, de: w.when.returning },
    options: [
      { value: 'yes', label: { en: w.value.yes, de: w.value.yes }, retired: false, within: null },
      { value: 'no', label: { en: w.value.no, de: w.value.no }, retired: false, within: null }
    ]
  });
  const fieldOf = (key: string) => (key === 'returning' ? returning : offered.find((o) => o.field.key === key)?.field);
  const choosable = $derived([
    ...offered.filter((o) => (o.field.list && o.field.type !== 'choices') || o.field.type === 'choice').map((o) => o.field),
    returning
  ]);
  const fields = $derived(offered.map((o) => ({ key: o.field.key, label: o.field.label, type: o.field.type })));
  const people = createQuery(() => ({
    queryKey: templateKeys.people(when),
    queryFn: () => data(api.POST('/api/templates/people', { body: { when } })),
    enabled: whom,
    placeholderData: keepPreviousData
  }));
  let showing = $state(false);
  const put = (next: Clause[]) => {
    begun = next.filter((c) => c.values.length === 0).map((c) => c.field);
    onchange(formulaOfClauses(next));
  };
  const setValues = (field: string, values: string[]) => put(clauses.map((c) => (c.field === field ? { field, values } : c)));
  const valueName = (field: string, v: string) => {
    const f = fieldOf(field);
    return f?.list ? nameOf(options.data?.options ?? [], f.list, v) : (f?.options?.find((o) => o.value === v)?.label[text.language] ?? v);
  };
</script>

<h2 class="pt-4 pb-1 {whom ? 'text-lg' : 'text-sm'}">{title}</h2>
{#if asFormula}
  <FormulaInput
    id="{id}-formula"
    label={w.when.formula}
    value={when ?? ''}
    {fields}
    {functions}
    error={finding ? text.problem({ pointer: '', code: finding.code, detail: finding.message }) : undefined}
    character={finding?.character ?? undefined}
    onchange={(v) => onchange(v.trim() === '' ? null : v)}
  />
  {#if plain !== undefined && mayEdit}<button type="button" class="link text-xs" onclick={() => (written = false)}
      >{w.when.asChoices}</button
    >{/if}
{:else}
  {#if clauses.length === 0}<p class="text-soft py-1">{always}</p>{/if}
  {#each clauses as clause, i (clause.field)}
    {@const field = fieldOf(clause.field)}
    <div class="grid grid-cols-1 items-start gap-x-4 sm:grid-cols-[12rem_1fr_auto]">
      <p class="pt-5">
        {#if i > 0}<span class="text-soft">{w.when.and} </span>{/if}<strong>{field?.label[text.language] ?? clause.field}</strong>
        {w.when.is}
      </p>
      <div>
        {#if field?.list}
          <ListPicker
            id="{id}-{clause.field}"
            label={w.when.value}
            list={field.list}
            value=""
            without={clause.values}
            onchange={(v) => v && setValues(clause.field, [...clause.values, v])}
          />
        {:else}
          <Picker
            id="{id}-{clause.field}"
            label={w.when.value}
            value=""
            choices={(field?.options ?? [])
              .filter((o) => !clause.values.includes(o.value))
              .map((o) => ({ value: o.value, label: o.label[text.language] }))}
            onchange={(v) => v && setValues(clause.field, [...clause.values, v])}
          />
        {/if}
        <Chips
          label={w.when.value}
          chosen={clause.values.map((v) => ({ value: v, label: valueName(clause.field, v) }))}
          takeAway={(v) => `${w.when.takeAway}: ${valueName(clause.field, v)}`}
          ontake={(v) =>
            setValues(
              clause.field,
              clause.values.filter((o) => o !== v)
            )}
        />
      </div>
      {#if mayEdit}
        <button
          type="button"
          class="text-soft hover:text-rust min-h-8 pt-5"
          aria-label={w.when.takeAway}
          onclick={() => put(clauses.filter((c) => c.field !== clause.field))}>✕</button
        >
      {/if}
    </div>
  {/each}
  {#if mayEdit}
    <div class="flex flex-wrap items-end gap-4">
      <div class="w-64">
        <Picker
          id="{id}-add"
          label={w.when.add}
          value=""
          choices={choosable
            .filter((f) => !clauses.some((c) => c.field === f.key))
            .map((f) => ({ value: f.key, label: f.label[text.language] }))}
          onchange={(v) => {
            if (v) begun = [...begun, v];
          }}
        />
      </div>
      <button type="button" class="link mb-5 text-xs" onclick={() => (written = true)}>{w.when.asFormula}</button>
    </div>
  {/if}
{/if}
{#if people.data && !people.data.trouble}
  <p class="pt-2">
    <strong>{w.when.people(people.data.count)}</strong>
    {#if people.data.count > 0}<Button aria-expanded={showing} onclick={() => (showing = !showing)}
        >{showing ? w.when.hide : w.when.show}</Button
      >{/if}
  </p>
  {#if showing}
    <ul class="pt-2">
      {#each people.data.people as p (p.id)}
        <li class="border-rule flex gap-4 border-b py-1">
          <a class="link min-w-48" href="/people/{p.id}">{p.name}</a><span class="text-soft text-xs"
            >{[p.job, p.site].filter(Boolean).join(' · ')}</span
          >
        </li>
      {/each}
    </ul>
    {#if people.data.count > people.data.people.length}<p class="text-soft text-xs">{w.when.first(people.data.people.length)}</p>{/if}
  {/if}
{/if}

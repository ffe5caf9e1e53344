<script lang="ts">
  import { api, data } from '$lib/api/client';
  import { allFields } from '$lib/record/rows';
  import { recordQuery } from '$lib/record/queries';
  import { text } from '$lib/text/index.svelte';
  import PersonPicker from '$lib/ui/PersonPicker.svelte';
  import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
  import type { Field } from './configuration';
  import type { Drafting } from './drafting.svelte';
  import { words } from './words';
  import { fieldKeys } from './queries';

  /** What a field's formulas come to for somebody who is there, with the draft as it stands. */
  let { field, drafting }: { field: Field; drafting: Drafting } = $props();
  const w = $derived(words().result);
  let person = $state('');
  const record = createQuery(() => ({ ...recordQuery(person), enabled: person !== '' }));
  // Their values, but for the field itself, whose default is to show.
  const values = $derived(
    Object.fromEntries(
      (record.data ? allFields(record.data) : []).filter((f) => f.value !== null && f.key !== field.key).map((f) => [f.key, f.value])
    )
  );
  const tried = createQuery(() => ({
    queryKey: fieldKeys.result(person, drafting.configuration, field.key, record.data?.version),
    queryFn: () =>
      data(
        api.POST('/api/fields/draft/try', {
          body: {
            configuration: drafting.configuration as unknown as Record<string, unknown>,
            role: 'coordinator',
            stage: null,
            values,
            changed: []
          }
        })
      ),
    enabled: record.data !== undefined,
    retry: false,
    placeholderData: keepPreviousData
  }));
  const lines = $derived.by(() => {
    const evaluation = tried.data?.evaluation;
    if (!evaluation) return [];
    const set = evaluation.set.find((s) => s.field === field.key);
    const lines: string[] = [];
    if (field.default && 'formula' in field.default)
      lines.push(w.value(set ? (set.display ?? (typeof set.value === 'number' ? text.number(set.value) : String(set.value))) : w.nothing));
    if (field.showWhen) lines.push(evaluation.shown.includes(field.key) ? w.shown : w.notShown);
    if (field.requiredWhen) {
      const needed = evaluation.missingNow.includes(field.key) || (set !== undefined && evaluation.shown.includes(field.key));
      lines.push(needed ? w.needed : w.notNeeded);
    }
    return lines;
  });
</script>

<div class="col-span-full grid grid-cols-1 gap-x-5 sm:grid-cols-2">
  <PersonPicker
    id="formula-person"
    label={w.person}
    value={person}
    shown={record.data ? `${record.data.givenName} ${record.data.familyName}` : ''}
    onchange={(v) => (person = v)}
  />
  <p class="self-end py-1" role="status">{tried.isError ? text.failure(tried.error) : lines.join(' · ')}</p>
</div>

<script lang="ts">
  import { goto } from '$app/navigation';
  import { api, data } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { fieldTitle } from '$lib/text/fieldLabels.svelte';
  import HireTitle from '$lib/hires/HireTitle.svelte';
  import { hireOf } from '$lib/record/hireOf';
  import { recordQuery } from '$lib/record/queries';
  import { keys } from '$lib/keys/keys.svelte';
  import { sourceText } from '$lib/text/source';
  import Picker from '$lib/ui/Picker.svelte';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { createQuery } from '@tanstack/svelte-query';
  import Changes from './Changes.svelte';
  import Compare from './Compare.svelte';
  import ValueLines from './ValueLines.svelte';
  import { words } from './words';
  import { recordKeys } from '$lib/record/queries';

  /** Everything a record held: over time, between two dates, and change by change. */
  let { id }: { id: string } = $props();
  const record = createQuery(() => recordQuery(id));
  const history = createQuery(() => ({
    queryKey: recordKeys.history(id),
    queryFn: () => data(api.GET('/api/records/{id}/history', { params: { path: { id } } }))
  }));
  const w = $derived(words());
  let field = $state('');
  let person = $state('');
  let source = $state('');

  const all = $derived(history.data?.values ?? []);
  const by = $derived(Object.fromEntries((history.data?.changes ?? []).map((c) => [c.id, c.by])));
  const values = $derived(
    all.filter(
      (v) => (!field || v.field === field) && (!person || by[v.changeId] === person) && (!source || sourceText(v.source) === source)
    )
  );
  const changes = $derived(
    (history.data?.changes ?? []).filter(
      (c) =>
        (!field || c.fields.includes(field)) &&
        (!person || c.by === person) &&
        (!source || all.some((v) => v.changeId === c.id && sourceText(v.source) === source))
    )
  );
  const once = (of: string[]) => [...new Set(of)].sort((a, b) => a.localeCompare(b));
  const fields = $derived(once(all.map((v) => v.field)).map((f) => ({ value: f, label: fieldTitle(f) })));
  const people = $derived(once((history.data?.changes ?? []).map((c) => c.by)).map((p) => ({ value: p, label: p })));
  const sources = $derived(once(all.map((v) => sourceText(v.source))).map((s) => ({ value: s, label: s })));

  $effect(() => keys.use(() => [{ key: 'Escape', run: () => void goto(session.home) }]));
</script>

<svelte:head><title>{w.title} · Fid</title></svelte:head>

{#if !record.data || !history.data}
  <Waiting
    error={record.error ?? history.error}
    retry={() => {
      void record.refetch();
      void history.refetch();
    }}
  />
{:else}
  <div class="page pb-8">
    <HireTitle
      {...record.data}
      filled={record.data.evaluation.filled}
      of={record.data.evaluation.shown.length}
      hire={hireOf(record.data)}
    />
    <div class="border-ink mt-3 grid grid-cols-1 gap-x-5 border-t pt-2 sm:grid-cols-3">
      <Picker id="history-field" label={w.field} bind:value={field} choices={fields} />
      <Picker id="history-person" label={w.person} bind:value={person} choices={people} />
      <Picker id="history-source" label={w.source} bind:value={source} choices={sources} />
    </div>
    <section aria-labelledby="history-compare" class="pt-2">
      <h2 id="history-compare" class="text-lg">{w.compare}</h2>
      <Compare {id} start={record.data.start} values={history.data?.values ?? []} />
    </section>
    <section aria-labelledby="history-values" class="pt-5">
      <h2 id="history-values" class="text-lg">{w.values}</h2>
      <p class="text-soft pb-1 text-xs">{w.valuesNote}</p>
      <ValueLines {id} {values} />
    </section>
    <section aria-labelledby="history-changes" class="pt-5">
      <h2 id="history-changes" class="text-lg">{w.changes}</h2>
      <Changes {id} {changes} values={history.data?.values ?? []} />
    </section>
  </div>
{/if}

<script lang="ts">
  import { api, ApiProblem, data, type Api, type ProblemEntry } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Line from '$lib/ui/Line.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { done, failed } from '$lib/ui/toast';
  import { createQuery, keepPreviousData, useQueryClient } from '@tanstack/svelte-query';
  import { untrack } from 'svelte';
  import Number from './parts/Number.svelte';
  import { words } from './words';
  import { listKeys } from './queries';

  /** The firm's few settings. */
  let { settings }: { settings: Api['SettingsRequest'] } = $props();
  const w = $derived(words());
  const client = useQueryClient();
  let draft = $state<Record<string, unknown>>(untrack(() => ({ ...settings })));
  let errors = $state<ProblemEntry[]>([]);
  const fields = $derived([
    { key: 'fullTimeHours', label: w.setupPage.fullTime },
    { key: 'legalWeeklyHours', label: w.setupPage.legal },
    { key: 'badgeRestDays', label: w.setupPage.badge },
    { key: 'bridgeDays', label: w.setupPage.bridge }
  ]);

  // What the number would be is for the server to say.
  const next = createQuery(() => ({
    queryKey: listKeys.number(draft.numberPattern),
    queryFn: () => data(api.GET('/api/setup/number', { params: { query: { pattern: String(draft.numberPattern) } } })),
    placeholderData: keepPreviousData,
    retry: false
  }));
  const wrong = $derived(next.error instanceof ApiProblem && next.error.errors[0] ? text.problem(next.error.errors[0]) : undefined);

  async function save(event: SubmitEvent) {
    event.preventDefault();
    errors = [];
    try {
      await data(api.PUT('/api/setup/settings', { body: draft as Api['SettingsRequest'] }));
      done(w.setupPage.settingsSaved);
      await client.invalidateQueries({ queryKey: listKeys.setup });
    } catch (e) {
      if (e instanceof ApiProblem && e.errors.length > 0) errors = e.errors;
      else failed(text.failure(e));
    }
  }
</script>

<form id="settings" class="pt-6" onsubmit={save} novalidate>
  <h2 class="text-base">{w.setupPage.settings}</h2>
  <div class="grid gap-x-6 pt-2 sm:grid-cols-3">
    {#each fields as field (field.key)}
      <Line id="settings-{field.key}" label={field.label} error={text.problem(errors.find((e) => e.pointer === `/${field.key}`))}>
        <Number id="settings-{field.key}" label={field.label} value={draft[field.key]} onchange={(v) => (draft[field.key] = v)} />
      </Line>
    {/each}
  </div>
  <div class="max-w-xl pt-1">
    <TextField
      id="settings-numberPattern"
      label={w.setupPage.numbers}
      bind:value={() => String(draft.numberPattern), (v) => (draft.numberPattern = v)}
      note={next.data && !wrong ? w.setupPage.nextNumber(next.data.number) : ''}
      error={text.problem(errors.find((e) => e.pointer === '/numberPattern')) ?? wrong}
    />
    <p class="text-soft pb-3 text-xs">{w.setupPage.numbersNote}</p>
  </div>
  <Button type="submit">{w.setupPage.saveSettings}</Button>
</form>

<script lang="ts">
  import { api, ApiProblem, data, type Api, type ProblemEntry } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Line from '$lib/ui/Line.svelte';
  import { done, failed } from '$lib/ui/toast';
  import { useQueryClient } from '@tanstack/svelte-query';
  import { untrack } from 'svelte';
  import Number from './parts/Number.svelte';
  import { words } from './words';

  /** The firm's few settings. */
  let { settings }: { settings: Api['SettingsRequest'] } = $props();
  const w = $derived(words());
  const client = useQueryClient();
  let draft = $state<Record<string, unknown>>(untrack(() => ({ ...settings })));
  let errors = $state<ProblemEntry[]>([]);
  const fields = $derived([
    { key: 'fullTimeHours', label: w.setupPage.fullTime },
    { key: 'legalWeeklyHours', label: w.setupPage.legal },
    { key: 'badgeRestDays', label: w.setupPage.badge }
  ]);

  async function save(event: SubmitEvent) {
    event.preventDefault();
    errors = [];
    try {
      await data(api.PUT('/api/setup/settings', { body: draft as Api['SettingsRequest'] }));
      done(w.setupPage.settingsSaved);
      await client.invalidateQueries({ queryKey: ['lists', 'setup'] });
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
  <Button type="submit">{w.setupPage.saveSettings}</Button>
</form>

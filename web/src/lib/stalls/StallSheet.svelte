<script lang="ts">
  import { goto } from '$app/navigation';
  import { api, data, type Api } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { keys } from '$lib/keys/keys.svelte';
  import { templateKeys } from '$lib/templates/queries';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import FooterSheet from '$lib/ui/FooterSheet.svelte';
  import { done, failed } from '$lib/ui/toast';
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { trialQuery } from './queries';
  import { tone } from './stallRow';
  import { words } from './words';

  /** The row selected: what the template should say instead, and what that would show. */
  interface Props {
    row: Api['StallRow'];
    name: string;
    onbehind: () => void;
  }
  let { row, name, onbehind }: Props = $props();
  const client = useQueryClient();
  const w = $derived(words());
  const suggested = $derived(row.suggestedWork);
  const trial = createQuery(() => ({ ...trialQuery(row.key, suggested ?? 0), enabled: suggested !== null }));
  const mayDraft = $derived(suggested !== null && session.may('edit template') && (trial.data?.templates.length ?? 0) > 0);
  let busy = $state(false);

  async function draft() {
    if (suggested === null) return;
    busy = true;
    try {
      const { templates } = await data(
        api.POST('/api/stalls/tasks/{key}/drafts', { params: { path: { key: row.key } }, body: { work: suggested } })
      );
      const names = templates.map((code) => trial.data?.templates.find((t) => t.code === code)?.name ?? code);
      done(w.drafted(text.list(names)), { label: w.open, run: () => void goto(`/templates/${templates[0]}`) });
      await client.invalidateQueries({ queryKey: templateKeys.all });
    } catch (e) {
      failed(text.failure(e));
    }
    busy = false;
  }
  $effect(() => keys.use(() => (mayDraft ? [{ key: 'e', label: w.put(suggested!), run: () => void draft() }] : [])));
</script>

<FooterSheet label={name} tone={tone(row) === 'rust' ? 'rust' : 'sea'}>
  <p class="min-w-0 flex-1 basis-72">
    <strong>{name}</strong>
    {#if suggested !== null}{w.within(suggested)}
      {#if trial.data}{w.would(suggested, trial.data.newlyShort, trial.data.underWay)}{/if}{/if}
    <span class="text-soft block text-xs">{w.wedge}</span>
  </p>
  <div class="flex flex-wrap gap-3">
    <Button onclick={onbehind}>{w.behind(row.count + row.open)}</Button>
    {#if mayDraft}<Button look="primary" key="e" disabled={busy} onclick={draft}>{w.put(suggested!)}</Button>{/if}
  </div>
</FooterSheet>

<script lang="ts">
  import { goto } from '$app/navigation';
  import { api, ApiProblem, data, type Api } from '$lib/api/client';
  import { fieldTitle } from '$lib/text/fieldLabels.svelte';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { done } from '$lib/ui/toast';
  import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query';
  import type { TemplateEditing } from './editing.svelte';
  import TemplateDifferences from './TemplateDifferences.svelte';
  import { countFates } from './touches';
  import { words } from './words';
  import { templateKeys } from './queries';

  /** What would change and which hires under way it touches, before it is made live. */
  interface Props {
    open: boolean;
    editing: TemplateEditing;
    live: number;
    underWay: number;
  }
  let { open = $bindable(), editing, live, underWay }: Props = $props();
  const client = useQueryClient();
  const w = $derived(words());
  const blocking = $derived((editing.example?.findings ?? []).filter((f) => f.blocks));
  let why = $state('');
  let error = $state('');
  const compared = createQuery(() => ({
    queryKey: templateKeys.compare(editing.code, live, 'draft', editing.version),
    queryFn: () => data(api.GET('/api/templates/{code}/compare', { params: { path: { code: editing.code }, query: { from: live } } })),
    enabled: live > 0
  }));
  const touched = createQuery(() => ({
    queryKey: templateKeys.touches(editing.code, editing.version),
    queryFn: () =>
      data(api.POST('/api/templates/{code}/touches', { params: { path: { code: editing.code } }, body: { spec: editing.spec } })),
    enabled: underWay > 0
  }));
  const fates = $derived(countFates(touched.data ?? []));
  const same = $derived(live > 0 && compared.data !== undefined && compared.data.differences.length === 0);

  const publishMutation = createMutation(() => ({
    mutationFn: async () => {
      const published = await data(
        api.POST('/api/templates/{code}/draft/publish', {
          params: { path: { code: editing.code } },
          body: { why: why.trim() || null },
          headers: { 'If-Match': editing.version ?? '' }
        })
      );
      // What is derived ends with the dialog.
      const [said, code] = [words().publishing.done(published.version), editing.code];
      open = false;
      done(said);
      await client.invalidateQueries({ queryKey: templateKeys.all });
      // Asked anew: one who publishes before the preview is there goes on to the hires as well.
      const touched = await client.fetchQuery({
        queryKey: templateKeys.updates(code),
        queryFn: () => data(api.GET('/api/templates/{code}/updates', { params: { path: { code } } }))
      });
      if (touched.length > 0) await goto(`/templates/${code}/updates`);
    },
    onError: (e) => {
      if (e instanceof ApiProblem && e.status === 412) {
        editing.other = e.current as Api['TemplateDraftResponse'];
        open = false;
      } else error = e instanceof ApiProblem && e.errors.length > 0 ? e.errors.map((p) => text.problem(p)).join(' ') : text.failure(e);
    }
  }));
  function publish() {
    error = '';
    publishMutation.mutate();
  }
</script>

<Dialog bind:open title={w.publishing.title} focus="#publish-why">
  <div class="px-5 pt-2 pb-5">
    {#if blocking.length > 0}
      <p class="text-rust font-semibold">{w.publishing.blocked}</p>
      <ul>
        {#each blocking as f, i (i)}<li class="text-rust">
            {f.part === 'values' && f.key ? fieldTitle(f.key) : [editing.names[f.key ?? ''] ?? f.key].filter(Boolean).join(', ')}:
            {text.problem({ pointer: '', code: f.code, detail: f.message })}
          </li>{/each}
      </ul>
    {/if}
    {#if same}<p>{w.publishing.nothing}</p>{/if}
    {#if compared.data && compared.data.differences.length > 0}
      <h3 class="text-base">{w.publishing.differences}</h3>
      <TemplateDifferences differences={compared.data.differences} names={editing.names} />
    {/if}
    <h3 class="pt-3 text-base">{w.publishing.touches}</h3>
    {#if underWay === 0 || (touched.data && touched.data.length === 0)}
      <p class="text-soft">{w.publishing.nobody}</p>
    {:else if touched.data}
      <p>
        {w.publishing.touched(touched.data.length, fates.take, fates.keep, fates.conflict)}
        <span class="text-soft">{w.publishing.later}</span>
      </p>
    {:else}<p class="text-soft">{text.t.common.loading}</p>{/if}
    <div class="pt-3"><TextField id="publish-why" label={w.publishing.why} bind:value={why} maxlength={500} /></div>
    {#if error}<p role="alert" class="text-rust font-semibold">{error}</p>{/if}
    <div class="flex justify-end gap-3 pt-3">
      <Button onclick={() => (open = false)}>{w.cancel}</Button>
      <Button look="primary" disabled={publishMutation.isPending || blocking.length > 0 || same || editing.saving} onclick={publish}
        >{w.publishing.act}</Button
      >
    </div>
  </div>
</Dialog>

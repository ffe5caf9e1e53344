<script lang="ts">
  import { api, data } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import { createQuery } from '@tanstack/svelte-query';
  import type { Spec } from './spec';
  import TemplateDifferences from './TemplateDifferences.svelte';
  import { words } from './words';
  import { templateKeys } from './queries';

  /** The versions of a template there were: compared with the draft or with what is live, or made the draft again. */
  interface Props {
    open: boolean;
    code: string;
    live: number;
    hasDraft: boolean;
    /** What tasks and messages are called, by key. */
    names: Record<string, string>;
    restore?: (spec: Spec) => void;
  }
  let { open = $bindable(), code, live, hasDraft, names, restore }: Props = $props();
  const w = $derived(words());
  let compared = $state<{ from: number; to: number | undefined }>();
  const versions = createQuery(() => ({
    queryKey: templateKeys.versions(code),
    queryFn: () => data(api.GET('/api/templates/{code}/versions', { params: { path: { code } } }))
  }));
  const difference = createQuery(() => ({
    queryKey: templateKeys.compare(code, compared),
    queryFn: () =>
      data(
        api.GET('/api/templates/{code}/compare', {
          params: {
            path: { code },
            query: compared!.to === undefined ? { from: compared!.from } : { from: compared!.from, to: compared!.to }
          }
        })
      ),
    enabled: compared !== undefined,
    staleTime: 0
  }));
  async function take(version: number) {
    const answer = await data(
      api.GET('/api/templates/{code}/compare', { params: { path: { code }, query: { from: version, to: version } } })
    );
    restore?.(answer.before);
    open = false;
  }
</script>

<Dialog bind:open title={w.versions.title}>
  <ul class="px-5 pt-2 pb-2">
    {#each versions.data ?? [] as row (row.version)}
      <li class="border-rule border-b py-2">
        <div class="flex flex-wrap items-baseline justify-between gap-x-4">
          <span>
            <strong>{w.version(row.version)}</strong>
            <span class="text-soft text-xs"
              >{[row.byName, text.day(row.at.slice(0, 10)), row.why, row.version === live ? w.versions.live : '']
                .filter(Boolean)
                .join(' · ')}</span
            >
          </span>
          <span class="flex gap-3">
            {#if row.version !== live}<button
                type="button"
                class="link text-xs"
                onclick={() => (compared = { from: row.version, to: live })}>{w.versions.compare}</button
              >{/if}
            {#if hasDraft}<button type="button" class="link text-xs" onclick={() => (compared = { from: row.version, to: undefined })}
                >{w.versions.withDraft}</button
              >{/if}
            {#if restore && row.version !== live}<button type="button" class="link text-xs" onclick={() => take(row.version)}
                >{w.versions.take}</button
              >{/if}
          </span>
        </div>
        {#if compared?.from === row.version && difference.data}
          {#if difference.data.differences.length === 0}<p>{w.versions.same}</p>{/if}
          <TemplateDifferences differences={difference.data.differences} {names} />
        {/if}
      </li>
    {/each}
  </ul>
  <div class="flex justify-end px-5 pb-5"><Button onclick={() => (open = false)}>{w.close}</Button></div>
</Dialog>

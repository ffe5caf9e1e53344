<script lang="ts">
  import { api, data } from '$lib/api/client';
  import { fieldTitle } from '$lib/text/fieldLabels.svelte';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import { createQuery } from '@tanstack/svelte-query';
  import type { Configuration } from './configuration';
  import Differences from './Differences.svelte';
  import { words } from './words';
  import { fieldKeys } from './queries';

  /** The versions there were: compared with what is live, or made the draft again. */
  let { open = $bindable(), live, restore }: { open: boolean; live: number; restore: (configuration: Configuration) => void } = $props();
  const w = $derived(words().history);
  let compared = $state<number>();
  const versions = createQuery(() => ({
    queryKey: fieldKeys.versions,
    queryFn: () => data(api.GET('/api/fields/versions')),
    enabled: open
  }));
  const rows = $derived([...(versions.data ?? []), { version: 0, at: '', byName: w.shipped, why: null }]);
  const difference = createQuery(() => ({
    queryKey: fieldKeys.compare(compared, live),
    queryFn: () => data(api.GET('/api/fields/compare', { params: { query: { from: compared!, to: live } } })),
    enabled: compared !== undefined
  }));

  async function take(version: number) {
    const configuration = await data(api.GET('/api/fields/versions/{version}', { params: { path: { version } } }));
    restore(configuration as unknown as Configuration);
    open = false;
  }
</script>

<Dialog bind:open title={w.title}>
  <ul class="px-5 pt-2 pb-5">
    {#each rows as row (row.version)}
      <li class="border-rule border-b py-2">
        <div class="flex flex-wrap items-baseline justify-between gap-x-4">
          <span
            ><strong>{row.version === 0 ? w.shipped : w.version(row.version)}</strong>
            <span class="text-soft text-xs"
              >{row.version === 0 ? '' : `${row.byName} · ${text.day(row.at.slice(0, 10))}`}{row.why ? ` · ${row.why}` : ''}{row.version ===
              live
                ? ` · ${w.live}`
                : ''}</span
            ></span
          >
          {#if row.version !== live}
            <span class="flex gap-3"
              ><button type="button" class="link text-xs" onclick={() => (compared = row.version)}>{w.compare}</button><button
                type="button"
                class="link text-xs"
                onclick={() => take(row.version)}>{w.restore}</button
              ></span
            >
          {/if}
        </div>
        {#if compared === row.version && difference.data}
          {#if difference.data.length === 0}<p>{w.same}</p>{/if}
          <Differences differences={difference.data} label={fieldTitle} />
        {/if}
      </li>
    {/each}
  </ul>
  <div class="flex justify-end px-5 pb-5"><Button onclick={() => (open = false)}>{words().trying.close}</Button></div>
</Dialog>

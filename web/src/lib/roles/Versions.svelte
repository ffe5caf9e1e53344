<script lang="ts">
  import { api, data } from '$lib/api/client';
  import Dialog from '$lib/ui/Dialog.svelte';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { createQuery } from '@tanstack/svelte-query';
  import { adminKeys } from '$lib/admin/queries';
  import { showMoment } from '$lib/admin/words';
  import type { RoleNames } from './naming';
  import type { Configuration } from './rights';
  import { words } from './words';

  /** When was which version made live, by whom and why? */
  interface Props {
    open: boolean;
    names: RoleNames;
    /** Takes a version as the draft; it is then compared with what is live before it is made live. */
    ontake?: (configuration: Configuration) => void;
  }
  let { open = $bindable(), names, ontake }: Props = $props();
  const w = $derived(words());
  const versions = createQuery(() => ({
    queryKey: adminKeys.rightsVersions,
    queryFn: () => data(api.GET('/api/rights/versions')),
    enabled: open
  }));
  async function take(version: number) {
    const configuration = await data(api.GET('/api/rights/versions/{version}', { params: { path: { version } } }));
    ontake?.(configuration as unknown as Configuration);
    open = false;
  }
</script>

<Dialog bind:open title={w.versions}>
  <div class="px-5 pt-2 pb-5">
    {#if !versions.data}
      <Waiting error={versions.error} retry={() => versions.refetch()} />
    {:else}
      <ul>
        {#each versions.data as version (version.version)}
          <li class="border-rule flex flex-wrap items-baseline gap-x-4 border-t py-1">
            <span class="font-semibold">{w.version(version.version, version.byName, showMoment(version.at))}</span>
            {#if version.askedBy}<span class="text-soft">{w.askedBy(version.askedBy)}</span>{/if}
            {#if version.why}<span><bdi>{version.why}</bdi></span>{/if}
            {#if ontake && version.version !== names.rights.version}<button
                type="button"
                class="link text-xs"
                onclick={() => void take(version.version)}>{w.takeVersion}</button
              >{/if}
          </li>
        {:else}<li class="text-soft">{w.noVersions}</li>{/each}
      </ul>
    {/if}
  </div>
</Dialog>

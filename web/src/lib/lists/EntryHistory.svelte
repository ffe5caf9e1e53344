<script lang="ts">
  import { api, data } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import { createQuery } from '@tanstack/svelte-query';
  import { words } from './words';
  import { listKeys } from './queries';

  /** Who changed an entry, when, and why. */
  let { list, code }: { list: string; code: string } = $props();
  const w = $derived(words());
  const history = createQuery(() => ({
    queryKey: listKeys.history(list, code),
    queryFn: () => data(api.GET('/api/lists/{list}/entries/{code}/history', { params: { path: { list, code } } }))
  }));
</script>

{#if history.data && history.data.length > 0}
  <details class="mt-4">
    <summary class="cursor-pointer text-xs font-semibold">{w.history} ({history.data.length})</summary>
    <ul class="text-xs">
      {#each history.data as change (change.at + change.action)}
        <li class="border-rule border-b py-1">
          {text.day(change.at.slice(0, 10))} · <strong>{change.by}</strong>
          {w.historyActs[change.action] ?? change.action}{#if change.why}
            · {change.why}{/if}
        </li>
      {/each}
    </ul>
  </details>
{/if}

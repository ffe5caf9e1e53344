<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import { useQueryClient } from '@tanstack/svelte-query';
  import { goOn } from './goOn';
  import { words } from './words';

  /** That a hire came to nothing, why, and the way back. */
  let { nothing }: { nothing: Api['CameToNothing'] } = $props();
  const client = useQueryClient();
  const t = $derived(words().outcome);
</script>

<p class="bg-ochre-tint border-ochre mt-3 flex flex-wrap items-center gap-x-4 gap-y-1 border-l-4 px-4 py-2">
  <span><strong>{t.became[nothing.outcome]}</strong>, {text.day(nothing.on)}: <bdi>{nothing.why}</bdi></span>
  {#if session.coordinates}<Button onclick={() => void goOn(nothing.hireId, client)}>{t.undo}</Button>{/if}
</p>

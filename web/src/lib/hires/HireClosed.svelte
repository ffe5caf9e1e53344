<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import { useQueryClient } from '@tanstack/svelte-query';
  import { goOn } from './goOn';
  import { words } from './words';

  /** That a hire came to nothing, why, and the way back. */
  let { closed }: { closed: Api['ClosedHire'] } = $props();
  const client = useQueryClient();
  const t = $derived(words().outcome);
</script>

<p class="bg-ochre-tint border-ochre mt-3 flex flex-wrap items-center gap-x-4 gap-y-1 border-l-4 px-4 py-2">
  <span><strong>{t.became[closed.outcome]}</strong>, {text.day(closed.on)}: <bdi>{closed.why}</bdi></span>
  {#if session.may('edit hire')}<Button onclick={() => void goOn(closed.hireId, 'arrival', client)}>{t.undo}</Button>{/if}
</p>

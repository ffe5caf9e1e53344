<script lang="ts">
  import { ApiProblem } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import Button from './Button.svelte';

  /** What stands where something is still to come, or could not be had. */
  let { error, retry }: { error: unknown; retry?: () => void } = $props();
  const missing = $derived(error instanceof ApiProblem && (error.status === 404 || error.status === 403));
</script>

<div class="page text-soft py-8">
  {#if missing}
    <h1 class="text-ink text-xl">{text.t.common.notFound}</h1>
    <p class="mt-2"><a class="link" href="/">{text.t.common.home}</a></p>
  {:else if error}
    <p role="alert" class="mb-3">{text.t.common.failed} {text.unread(error)}</p>
    {#if retry}<Button onclick={retry}>{text.t.common.again}</Button>{/if}
  {:else}
    <p role="status">{text.t.common.loading}</p>
  {/if}
</div>

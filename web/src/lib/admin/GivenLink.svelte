<script lang="ts">
  import type { Api } from '$lib/api/client';
  import Button from '$lib/ui/Button.svelte';
  import { done } from '$lib/ui/toast';
  import type { Snippet } from 'svelte';
  import { showMoment, words } from './words';

  /** A link to give to somebody, until mail brings it to them. */
  let { name, link, acts }: { name: string; link: Api['LinkResponse']; acts: Snippet } = $props();
  const w = $derived(words().given);
  const address = $derived(`${location.origin}${link.link}`);
  let field = $state<HTMLInputElement>();

  async function copy() {
    field?.select();
    await navigator.clipboard?.writeText(address);
    done(w.copied);
  }
</script>

<div class="space-y-3">
  <p class="font-semibold">{w.title(name)}</p>
  <input
    bind:this={field}
    readonly
    value={address}
    aria-label={w.title(name)}
    class="border-ink bg-paper w-full rounded border px-2 py-1.5 font-mono text-xs"
    onfocus={(e) => e.currentTarget.select()}
  />
  <p class="text-soft text-xs">{w.note(showMoment(link.endsAt))}</p>
  <div class="flex flex-wrap gap-3"><Button look="primary" onclick={copy}>{w.copy}</Button>{@render acts()}</div>
</div>

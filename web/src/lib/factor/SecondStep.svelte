<script lang="ts">
  import { session } from '$lib/api/session.svelte';
  import AddFactor from './AddFactor.svelte';
  import ProveForm from './ProveForm.svelte';
  import { words } from './words';

  /** The second step of signing in: a factor is proved, or the first one added where a role asks for it. */
  const w = $derived(words());
</script>

{#if session.secondFactor === 'add'}
  <h2 class="pb-1 text-lg">{w.addTitle}</h2>
  <p class="text-soft pb-3">{w.addNote}</p>
  <AddFactor onadded={() => void session.load()} />
{:else}
  <h2 class="pb-3 text-lg">{w.proveTitle}</h2>
  <ProveForm onproved={(known) => session.take(known)} />
{/if}
<p class="pt-6"><button type="button" class="link text-sm" onclick={() => void session.signOut()}>{w.signOut}</button></p>

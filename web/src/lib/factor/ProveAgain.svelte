<script lang="ts">
  import Dialog from '$lib/ui/Dialog.svelte';
  import ProveForm from './ProveForm.svelte';
  import { words } from './words';

  /** Asks for the second factor once more, where the server wants it, before what was to be done goes on. */
  let { onanswer }: { onanswer: (proved: boolean) => void } = $props();
  const w = $derived(words());
  let open = $state(true);
</script>

<Dialog bind:open title={w.againTitle} onclose={() => onanswer(false)} focus="#factor-code">
  <div class="px-5 pt-1 pb-5">
    <p class="text-soft pb-3">{w.againNote}</p>
    <ProveForm onproved={() => onanswer(true)} />
  </div>
</Dialog>

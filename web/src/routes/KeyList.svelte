<script lang="ts">
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import Key from '$lib/ui/Key.svelte';
  import { untrack } from 'svelte';
  import { keys } from '$lib/keys/keys.svelte';

  let { open = $bindable() }: { open: boolean } = $props();
  // As they were when asked for; the dialog itself has none.
  const listed = untrack(() => keys.all);
</script>

<Dialog bind:open title={text.t.keys.title} place="top">
  <dl class="grid grid-cols-[auto_1fr] gap-x-6 gap-y-2 px-5 py-4">
    {#each listed as shortcut (shortcut.key)}
      <dt class="font-semibold"><Key name={shortcut.key} /><span class="sr-only">{shortcut.key}</span></dt>
      <dd>{shortcut.label}</dd>
    {/each}
    <dt class="font-semibold"><Key name="Escape" /><span class="sr-only">Esc</span></dt>
    <dd>{text.t.keys.back}</dd>
  </dl>
  <div class="px-5 pb-4"><Button onclick={() => (open = false)}>{text.t.common.close}</Button></div>
</Dialog>

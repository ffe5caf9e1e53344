<script lang="ts">
  import { keyName } from '$lib/keys/keys.svelte';
  /** How a key is shown on buttons: hidden from screen readers, who have aria-keyshortcuts, and where there is no keyboard. */
  let { name, onDark = false }: { name: string; onDark?: boolean } = $props();
</script>

<kbd
  aria-hidden="true"
  class="text-2xs ml-1 hidden rounded border px-1 font-sans font-semibold sm:inline-block {onDark
    ? 'border-current/50'
    : 'border-rule bg-band text-soft'}">{keyName(name)}</kbd
>

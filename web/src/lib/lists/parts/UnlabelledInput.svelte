<script lang="ts">
  import type { HTMLInputAttributes } from 'svelte/elements';
  /** An input in a line of several: its name is said, not shown. */
  interface Props extends HTMLInputAttributes {
    label: string;
  }
  let { label, ...rest }: Props = $props();
</script>

<input
  aria-label={label}
  autocomplete="off"
  dir="auto"
  class="border-rule focus:border-ink min-h-8 w-full min-w-0 border-b bg-transparent px-0.5 font-medium outline-none focus-visible:outline-2"
  {...rest}
/>

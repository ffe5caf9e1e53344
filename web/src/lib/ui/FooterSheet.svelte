<script lang="ts">
  import type { Snippet } from 'svelte';
  /** Rises from the bottom when something is selected or changed: what it is, why it matters, and the acts that fit. */
  let { label, children, tone = 'sea' }: { label: string; children: Snippet; tone?: 'sea' | 'rust' } = $props();
  let height = $state(0);
  // What is focused by keys or looked for is scrolled to above the sheet, not under it.
  $effect(() => {
    document.documentElement.style.scrollPaddingBottom = `${height}px`;
    return () => (document.documentElement.style.scrollPaddingBottom = '');
  });
</script>

<div style:height="{height}px" aria-hidden="true"></div>
<section
  bind:offsetHeight={height}
  aria-label={label}
  class="bg-sheet fixed inset-x-0 bottom-0 z-20 max-h-[60dvh] overflow-y-auto border-t-2 {tone === 'sea' ? 'border-sea' : 'border-rust'}"
>
  <div class="page flex flex-wrap items-center gap-x-8 gap-y-2 py-3">
    {@render children()}
  </div>
</section>

<script lang="ts">
  import type { LayerLook } from './layers';

  /** Strokes that show which layers say something: the one that wins thick, what it displaced thin. */
  let { looks, from, displaced }: { looks: LayerLook[]; from: string; displaced: string[] } = $props();
  const top = $derived(Math.max(looks.length - 1, 1));
  const shown = $derived(looks.filter((l) => l.id === from || displaced.includes(l.id)));
</script>

<span class="relative block h-6 w-12 shrink-0" aria-hidden="true">
  {#each shown as look (look.id)}
    <span
      class="absolute inset-x-0 {look.tone} {look.id === from ? 'h-[3px]' : 'h-px opacity-70'}"
      style:top="{3 + (look.place / top) * 16}px"
    ></span>
  {/each}
</span>

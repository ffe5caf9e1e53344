<script lang="ts">
  import { isoDay } from '$lib/text/dates';
  import { text } from '$lib/text/index.svelte';
  import type { TimeScale } from './TimeScale';

  /** The flag on the day that all is planned around. Where it may be moved, it is taken by its cloth and put on another day to see what that does. */
  interface Props {
    scale: TimeScale;
    start: string;
    /** Told of the day it was put on. */
    onput?: (day: string) => void;
  }
  let { scale, start, onput }: Props = $props();
  /** Where it is while it is dragged. */
  let at = $state<number>();
  const day = $derived(at === undefined ? start : isoDay(scale.dayAt(at)));
  const place = (e: PointerEvent) => e.clientX - (e.currentTarget as SVGElement).ownerSVGElement!.getBoundingClientRect().left;

  function take(e: PointerEvent) {
    if (!onput || e.button !== 0) return;
    (e.currentTarget as SVGElement).setPointerCapture(e.pointerId);
    at = place(e);
    e.preventDefault();
  }
  function put() {
    const to = day;
    at = undefined;
    if (to !== start) onput?.(to);
  }
</script>

<svelte:window onkeydown={(e) => e.key === 'Escape' && (at = undefined)} />

{#if scale.holds(day)}
  <!-- svelte-ignore a11y_no_static_element_interactions (the same is done by a button; this only begins it by hand) -->
  <path
    data-testid="flag"
    d="M{scale.x(day)} 26V4h16l-5 4.500 5 4.500h-16"
    class="{at === undefined ? 'fill-ink stroke-ink' : 'fill-sea stroke-sea'} {onput ? 'cursor-ew-resize touch-none' : ''}"
    style={onput ? 'pointer-events: bounding-box' : ''}
    onpointerdown={take}
    onpointermove={(e) => at !== undefined && (at = place(e))}
    onpointerup={() => at !== undefined && put()}
    onpointercancel={() => (at = undefined)}
  />
  {#if at !== undefined}
    <text
      x={scale.x(day) + 20}
      y="13"
      class="fill-sea text-2xs font-semibold"
      style="paint-order: stroke"
      stroke="var(--color-paper)"
      stroke-width="4">{text.day(day)}</text
    >
  {/if}
{/if}

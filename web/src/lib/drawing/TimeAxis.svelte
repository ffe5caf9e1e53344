<script lang="ts">
  import { text } from '$lib/text/index.svelte';
  import Flag from './Flag.svelte';
  import SplicePattern from './SplicePattern.svelte';
  import type { TimeScale } from './TimeScale';

  /** Dates over the columns, and today. */
  interface Props {
    scale: TimeScale;
    today: string;
    start?: string;
    /** Where the flag may be put on another day: told of which. */
    onput?: (day: string) => void;
  }
  let { scale, today, start, onput }: Props = $props();
  const label = $derived(text.t.arrivals.today);
  const half = $derived(label.length * 3.6 + 8);
  const at = $derived(Math.min(Math.max(scale.x(today), half), scale.width - half));
  // A date gives way where Today or the flag stands.
  const isTaken = (x: number, label: string) => {
    const end = x + label.length * 6;
    const flag = start === undefined ? NaN : scale.x(start);
    return (scale.holds(today) && x < at + half + 2 && end > at - half - 2) || (x < flag + 18 && end > flag - 2);
  };
</script>

<svg width={scale.width} height="26" class="block overflow-visible" aria-hidden="true">
  <SplicePattern />
  {#each scale.weeks as week (week.iso)}
    <line x1={week.x} x2={week.x} y1="0" y2="26" class="stroke-rule" />
    {#if week.labelled && !isTaken(week.x + 4, text.shortDay(week.iso))}
      <text x={week.x + 4} y="17" class="fill-soft text-2xs">{text.shortDay(week.iso)}</text>
    {/if}
  {/each}
  {#if scale.holds(today)}
    <rect x={at - half} y="2" width={half * 2} height="17" rx="3" class="fill-rust" />
    <text x={at} y="14.500" text-anchor="middle" class="fill-paper text-2xs font-semibold">{label}</text>
    <line x1={scale.x(today)} x2={scale.x(today)} y1="19" y2="26" class="stroke-rust" stroke-width="1.500" />
  {/if}
  {#if start}<Flag {scale} {start} {onput} />{/if}
</svg>

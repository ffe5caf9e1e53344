<script lang="ts">
  import { dayNumber } from '$lib/text/dates';
  import { text } from '$lib/text/index.svelte';
  import SplicePattern from './SplicePattern.svelte';
  import type { TimeScale } from './TimeScale';

  /** Weeks before and after the first day, over rows that are aligned on it. */
  let { scale, dayOne }: { scale: TimeScale; dayOne: string } = $props();
  const t = $derived(text.t.arrivals);
  const weeks = $derived(scale.weeks.map(({ x, iso }) => ({ x, from: (dayNumber(iso) - dayNumber(dayOne)) / 7 })));
  // Every week has its line; words stand where they do not touch.
  const every = $derived(Math.max(1, Math.ceil((t.weeksFromDayOne(-4).length * 6 + 10) / (scale.dayWidth * 7))));
</script>

<svg width={scale.width} height="26" class="block overflow-visible" aria-hidden="true">
  <SplicePattern />
  {#each weeks as week (week.from)}
    <!-- Between labelled weeks a short one, which no words cross. -->
    <line x1={week.x} x2={week.x} y1={week.from % every === 0 ? 0 : 20} y2="26" class="stroke-rule" />
    {#if week.from !== 0 && week.from % every === 0}
      <text x={week.x + 4} y="17" class="fill-soft text-2xs">{t.weeksFromDayOne(week.from)}</text>
    {/if}
  {/each}
  <path d="M{scale.x(dayOne)} 26V4h16l-5 4.500 5 4.500h-16" class="fill-ink stroke-ink" />
</svg>

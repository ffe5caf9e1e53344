<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { dayNumber } from '$lib/text/dates';
  import { text } from '$lib/text/index.svelte';
  import { TimeScale } from './TimeScale';

  /** A pay period between its neighbours: a ruled line, the period filled in, the cut-off as a ring, the pay day as a diamond. */
  interface Props {
    last: Api['PaidPeriod'] | null;
    period: Api['PaidPeriod'];
    next: Api['PaidPeriod'] | null;
    label: string;
    /** What is written under the period, the cut-off and the pay day. */
    words: { period: string; cutOff: string; paid: string };
  }
  let { last, period, next, label, words }: Props = $props();
  let width = $state(900);

  const from = $derived(last?.start ?? period.start);
  const to = $derived(Math.max(dayNumber(next?.end ?? period.end) + 1, dayNumber(period.payDate) + 2));
  const scale = $derived(new TimeScale(dayNumber(from), to, width, true));
  const starts = $derived([last?.start, period.start, next?.start].filter((d): d is string => d !== undefined));
  const end = $derived(scale.x(dayNumber(period.end) + 1));
  /** The words of cut-off and pay day stand on two lines where they would touch. */
  const close = $derived(Math.abs(scale.x(period.payDate) - scale.x(period.cutOff)) < 190);
  const anchor = (x: number) => (x < 90 ? 'start' : x > width - 90 ? 'end' : 'middle');
</script>

<div bind:clientWidth={width} class="overflow-hidden">
  <svg {width} height={close ? 76 : 60} class="block" role="img" aria-label={label}>
    {#each starts as day (day)}
      <text x={scale.x(day) + 5} y="12" class="fill-soft text-2xs">{text.shortDay(day)}</text>
      <line x1={scale.x(day)} x2={scale.x(day)} y1="18" y2="36" class="stroke-ink" stroke-width="1.5" />
    {/each}
    <line x1="0" x2={width} y1="27" y2="27" class="stroke-ink" stroke-width="1.25" />
    <rect x={scale.x(period.start)} width={Math.max(end - scale.x(period.start), 2)} y="21" height="12" class="fill-sea-tint stroke-sea" />
    <line x1={end} x2={end} y1="18" y2="36" class="stroke-ink" stroke-width="1.5" />
    {#if width >= 640}<text x={(scale.x(period.start) + end) / 2} y="52" text-anchor="middle" class="fill-sea text-2xs font-semibold"
        >{words.period}</text
      >{/if}
    <circle cx={scale.x(period.cutOff)} cy="27" r="6" stroke-width="2" class="fill-sheet stroke-rust" />
    <path d="M{scale.x(period.payDate)} 18l8 9l-8 9l-8 -9z" class="fill-ink" />
    <text
      x={scale.x(period.cutOff)}
      y={close ? 68 : 52}
      text-anchor={anchor(scale.x(period.cutOff))}
      class="fill-rust text-2xs font-semibold">{words.cutOff}</text
    >
    <text x={scale.x(period.payDate)} y="52" text-anchor={anchor(scale.x(period.payDate))} class="fill-ink text-2xs">{words.paid}</text>
  </svg>
</div>

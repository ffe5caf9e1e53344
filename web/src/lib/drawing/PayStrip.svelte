<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { dayNumber } from '$lib/text/dates';
  import { text } from '$lib/text/index.svelte';
  import { TimeScale } from './TimeScale';

  /** Pay periods along a line: what is paid filled in, the start as a flag, cut-offs as rings, the pay day as a diamond. */
  interface Props {
    periods: Api['PaidPeriod'][];
    start: string;
    label: string;
  }
  let { periods, start, label }: Props = $props();
  let width = $state(272);

  const paidWith = $derived(periods.at(-1)!);
  const scale = $derived(
    new TimeScale(
      dayNumber(periods[0]!.start) - 1,
      Math.max(...periods.flatMap((p) => [dayNumber(p.end) + 1, dayNumber(p.payDate), dayNumber(p.cutOff)])) + 2,
      width,
      true
    )
  );
  const after = (iso: string) => scale.x(dayNumber(iso) + 1);
  const paid = $derived(periods.map((p, i) => ({ ...p, from: i === 0 ? start : p.start, late: i < periods.length - 1 })));
  /** Where each label of a period's first day begins, as many as stand side by side. */
  const labels = $derived.by(() => {
    const shown: { x: number; day: string }[] = [];
    for (const p of periods) if (scale.x(p.start) - (shown.at(-1)?.x ?? -60) >= 48) shown.push({ x: scale.x(p.start), day: p.start });
    return shown;
  });
</script>

<div bind:clientWidth={width} class="overflow-hidden">
  <svg {width} height="52" class="block" role="img" aria-label={label}>
    {#each labels as at (at.day)}<text x={at.x} y="10" class="fill-soft text-2xs">{text.shortDay(at.day)}</text>{/each}
    <line x1="0" x2={width} y1="30" y2="30" class="stroke-ink" stroke-width="1.25" />
    {#each paid as p (p.start)}
      <rect
        x={scale.x(p.from)}
        width={Math.max(after(p.end) - scale.x(p.from), 2)}
        y="25"
        height="10"
        class={p.late ? 'fill-ochre-tint stroke-ochre' : 'fill-sea-tint stroke-sea'}
      />
      <line x1={scale.x(p.start)} x2={scale.x(p.start)} y1="22" y2="38" class="stroke-ink" stroke-width="1.5" />
      <circle cx={scale.x(p.cutOff)} cy="30" r="4.5" stroke-width="1.75" class="fill-sheet {p.late ? 'stroke-rust' : 'stroke-ink'}" />
    {/each}
    <line x1={after(paidWith.end)} x2={after(paidWith.end)} y1="22" y2="38" class="stroke-ink" stroke-width="1.5" />
    <path d="M{scale.x(paidWith.payDate)} 23l6 7l-6 7l-6 -7z" class="fill-ink" />
    <path d="M{scale.x(start)} 50V17h9l-3 4l3 4h-9" class="stroke-ink fill-ink" stroke-width="1.5" />
  </svg>
</div>

<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { dayNumber } from '$lib/text/dates';
  import type { TimeScale } from './TimeScale';

  /** A checklist as a rope: spliced as far as the work is done, thin from there on, a knot at each gate, frayed where something
   * is late; the flag is the start date, and today runs through. */
  interface Props {
    scale: TimeScale;
    rope: Api['RopeResponse'];
    start: string;
    today: string;
    stages: Api['StageName'][];
    feasible: boolean;
    label: string;
  }
  let { scale, rope, start, today, stages, feasible, label }: Props = $props();
  const y = 31;
  const height = 62;

  const end = $derived(rope.knots.at(-1)?.day ?? rope.to);
  const done = $derived({ from: scale.x(rope.from), to: scale.x(rope.to) });
  const names = $derived(
    rope.knots.flatMap((knot, i) => {
      const from = scale.x(i === 0 ? rope.from : rope.knots[i - 1]!.day);
      const to = scale.x(knot.day);
      const name = stages.find((s) => s.key === knot.stage)?.name ?? knot.stage;
      // A name is written only where it has room between its knots.
      return to - from > name.length * 6.2 + 6 ? [{ name, x: (from + to) / 2 }] : [];
    })
  );
  const begins = $derived(dayNumber(rope.from) <= scale.last);
</script>

<svg width={scale.width} {height} class="block" style:background={scale.ground} role="img" aria-label={label}>
  {#if begins}
    <line x1={Math.max(done.from, 0)} x2={scale.x(end)} y1={y} y2={y} class="stroke-soft" stroke-width="1.250" />
    {#if done.to - done.from > 1}
      <rect x={done.from} width={done.to - done.from} y={y - 4} height="8" rx="4" fill="url(#splice)" />
    {/if}
    {#if rope.frayed}
      <path d="M{done.to + 10} {y - 6}L{done.to} {y}l10 6M{done.to} {y}h11" class="stroke-rust fill-none" stroke-width="1.750" />
    {/if}
    {#each rope.knots as knot (knot.stage)}
      {#if scale.holds(knot.day)}
        <circle cx={scale.x(knot.day)} cy={y} r="4.500" class="stroke-ink {knot.passed ? 'fill-sea' : 'fill-sheet'}" stroke-width="1.500" />
      {/if}
    {/each}
    {#each names as name (name.name)}
      <text x={name.x} y={y + 18} text-anchor="middle" class="fill-soft text-2xs">{name.name}</text>
    {/each}
  {/if}
  {#if scale.holds(start)}
    <path
      d="M{scale.x(start)} {height - 8}V8h15l-5 4.500 5 4.500h-15"
      class={feasible ? 'fill-ink stroke-ink' : 'fill-rust stroke-rust'}
      stroke-width="1.750"
    />
  {/if}
  {#if scale.holds(today)}
    <line x1={scale.x(today)} x2={scale.x(today)} y1="0" y2={height} class="stroke-rust" stroke-width="1.500" />
  {/if}
</svg>

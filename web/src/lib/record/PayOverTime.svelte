<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { dayNumber } from '$lib/text/dates';
  import { text } from '$lib/text/index.svelte';
  import { scaleLinear } from 'd3-scale';
  import { words } from './words';

  /** What somebody has earned and will earn: a line that steps, thin where it is still to come, with today through it. */
  let { steps }: { steps: Api['PayStep'][] } = $props();
  const t = $derived(words().overTime);
  const height = 64;
  let width = $state(272);

  const today = $derived(dayNumber(text.today));
  const first = $derived(dayNumber(steps[0]!.from));
  // As far beyond the last change as to show what it leads to.
  const last = $derived(Math.max(dayNumber(steps.at(-1)!.from), today) + 120);
  const x = $derived(
    scaleLinear()
      .domain([first, last])
      .range([2, width - 2])
  );
  const y = $derived(
    scaleLinear()
      .domain([Math.min(...steps.map((s) => s.annual)), Math.max(...steps.map((s) => s.annual))])
      .range([height - 12, 12])
  );
  const parts = $derived(
    steps.map((s, i) => {
      const [from, to] = [dayNumber(s.from), i + 1 < steps.length ? dayNumber(steps[i + 1]!.from) : last];
      return {
        from: x(from),
        to: x(to),
        y: y(s.annual),
        next: i + 1 < steps.length ? y(steps[i + 1]!.annual) : undefined,
        coming: from > today
      };
    })
  );
  const label = $derived(t.drawing(steps.map((s) => `${text.money(s.annual, true)} ${t.from(text.day(s.from))}`)));
  /** The last changes, the latest last; the drawing holds the others. */
  const listed = $derived(steps.slice(-4));
</script>

<section class="py-4 text-xs">
  <h3 class="font-sans text-sm font-semibold tracking-normal">{t.title}</h3>
  <div bind:clientWidth={width} class="overflow-hidden">
    <svg {width} {height} class="block" role="img" aria-label={label}>
      {#each parts as p (p.from)}
        <path
          d="M{p.from} {p.y}H{p.to}{p.next === undefined ? '' : `V${p.next}`}"
          class="stroke-sea fill-none"
          stroke-width={p.coming ? 1.5 : 3}
          stroke-dasharray={p.coming ? '4 3' : undefined}
        />
      {/each}
      {#if today >= first}<line x1={x(today)} x2={x(today)} y1="4" y2={height - 4} class="stroke-rust" stroke-width="1.25" />{/if}
    </svg>
  </div>
  <ol>
    {#each listed as step (step.from)}
      <li class="flex justify-between gap-3">
        <span class="text-soft">{t.from(text.day(step.from))}</span>
        <span class={dayNumber(step.from) > today ? '' : 'font-semibold'}>{text.money(step.annual)}</span>
      </li>
    {/each}
  </ol>
</section>

<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import { scaleLinear } from 'd3-scale';

  /** Pay against its band: the band as a ruled line, colleagues as rings, this person as a pointer. */
  let { band }: { band: Api['BandResponse'] } = $props();
  let width = $state(260);

  const lowest = $derived(Math.min(band.min, band.pay ?? band.min, ...(band.colleagues ?? [])));
  const highest = $derived(Math.max(band.max, band.pay ?? band.max, ...(band.colleagues ?? [])));
  const x = $derived(
    scaleLinear()
      .domain([lowest, highest])
      .range([6, width - 6])
  );
  const thousands = (n: number) => text.number(n / 1000, 1);
  const label = $derived(
    band.pay === null
      ? ''
      : text.t.common.bandLabel(
          text.money(band.pay, true),
          text.money(band.min, true),
          text.money(band.max, true),
          text.number(band.compaRatio ?? 0, 3)
        )
  );
</script>

<div bind:clientWidth={width} class="overflow-hidden">
  <svg {width} height="56" class="block" role="img" aria-label={label}>
    <line x1={x(band.min)} x2={x(band.max)} y1="28" y2="28" class="stroke-ink" stroke-width="1.750" />
    {#each [band.min, band.mid, band.max] as edge (edge)}
      <line x1={x(edge)} x2={x(edge)} y1="22" y2="34" class="stroke-ink" stroke-width="1.750" />
      <text
        x={x(edge)}
        y="49"
        text-anchor={edge === band.min
          ? x(edge) < 20
            ? 'start'
            : 'middle'
          : edge === band.max
            ? x(edge) > width - 20
              ? 'end'
              : 'middle'
            : 'middle'}
        class="fill-soft text-2xs">{thousands(edge)}</text
      >
    {/each}
    {#each band.colleagues ?? [] as pay, i (i)}
      <circle cx={x(pay)} cy="28" r="4" class="stroke-faint fill-none" />
    {/each}
    {#if band.pay !== null}
      <path
        d="M{x(band.pay)} 19l-5 -9h10z"
        class={band.position === 'within' ? 'fill-sea' : 'fill-rust'}
        transform="rotate(180 {x(band.pay)} 14.500)"
      />
    {/if}
  </svg>
</div>

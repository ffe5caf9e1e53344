<script lang="ts">
  /** A spread of days: a line from one in ten to nine in ten, a box for the middle half, a stroke at half, a wedge at what was promised. */
  interface Props {
    p10: number;
    p25: number;
    median: number;
    p75: number;
    p90: number;
    promised: number | null;
    x: (days: number) => number;
    width: number;
    tone: 'rust' | 'ochre' | 'sea';
    label: string;
  }
  let { p10, p25, median, p75, p90, promised, x, width, tone, label }: Props = $props();
  const colours = { rust: 'fill-rust stroke-rust', ochre: 'fill-ochre stroke-ochre', sea: 'fill-sea stroke-sea' };
</script>

<svg {width} height="34" role="img" aria-label={label} class="block overflow-visible">
  <g class={colours[tone]}>
    <line x1={x(p10)} x2={x(p90)} y1="19" y2="19" stroke-width="2" />
    <line x1={x(p90)} x2={x(p90)} y1="13" y2="25" stroke-width="2" />
    <rect x={x(p25)} y="13" width={Math.max(x(p75) - x(p25), 6)} height="12" rx="2" stroke="none" />
  </g>
  <line x1={x(median)} x2={x(median)} y1="8" y2="30" class="stroke-ink" stroke-width="2" />
  {#if promised !== null}<path d="M{x(promised) - 5} 0h10l-5 6z" class="fill-ink" />{/if}
</svg>

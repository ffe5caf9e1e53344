<script lang="ts">
  import type { Api } from '$lib/api/client';
  import type { TimeScale } from './TimeScale';

  /** A task: a bar from its earliest start to its earliest finish, a thin line through the slack, a post at the latest finish. */
  let {
    scale,
    task,
    start,
    today,
    accepted
  }: { scale: TimeScale; task: Api['TaskResponse']; start: string; today: string; accepted: string } = $props();
  const height = 32;
  const y = height / 2;

  // The far edge of a day: work done on Friday reaches to Saturday's left edge.
  const after = (iso: string) => scale.x(iso) + scale.dayWidth;
  const bar = $derived(
    task.earliestStart && task.earliestFinish
      ? {
          from: scale.x(task.earliestStart),
          to: Math.max(task.work === 0 ? scale.x(task.earliestStart) + 3 : after(task.earliestFinish), scale.x(task.earliestStart) + 3)
        }
      : undefined
  );
  const post = $derived(task.latestFinish ? (task.work === 0 ? scale.x(task.latestFinish) : after(task.latestFinish)) : undefined);
  const spliced = $derived.by(() => {
    if (!task.done) return undefined;
    const to = Math.min(after(task.done), scale.width);
    return { from: Math.max(scale.x(accepted), Math.min(to - 4, to - scale.dayWidth * Math.max(task.work, 1) * 1.4)), to };
  });
  const tone = $derived(
    task.state === 'late' && !task.beforeKnown
      ? 'fill-rust stroke-rust'
      : task.state === 'atRisk'
        ? 'fill-ochre stroke-ochre'
        : 'fill-sheet stroke-sea'
  );
</script>

<svg width={scale.width} {height} class="block" style:background={scale.ground} aria-hidden="true">
  {#if spliced}
    <rect x={spliced.from} width={Math.max(spliced.to - spliced.from, 3)} y={y - 4} height="8" rx="4" fill="url(#splice)" />
  {/if}
  {#if bar}
    {#if post !== undefined}
      <line x1={Math.min(bar.to, post)} x2={Math.max(bar.to, post)} y1={y} y2={y} class="stroke-soft" stroke-width="1.250" />
    {/if}
    <rect x={bar.from} width={bar.to - bar.from} y={y - 6.5} height="13" rx="2" class={tone} stroke-width="1.500" />
    {#if post !== undefined}
      <line x1={post} x2={post} y1={y - 8} y2={y + 8} class="stroke-ink" stroke-width="2" />
    {/if}
  {/if}
  {#if scale.holds(start)}<line x1={scale.x(start)} x2={scale.x(start)} y1="0" y2={height} class="stroke-ink" stroke-width="1.750" />{/if}
  {#if scale.holds(today)}<line x1={scale.x(today)} x2={scale.x(today)} y1="0" y2={height} class="stroke-rust" stroke-width="1.500" />{/if}
</svg>

<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { TimeScale } from '$lib/drawing/TimeScale';
  import { dayNumber } from '$lib/text/dates';
  import { text } from '$lib/text/index.svelte';
  import { words } from './words';

  /** When each owner would work, around the start. */
  let { plan, start }: { plan: Api['ExamplePlan']; start: string } = $props();
  const width = 220;
  const lane = 22;
  const owners = $derived([...new Map(plan.tasks.map((t) => [t.owner, text.owner(t.owner, t.ownerName)])).entries()]);
  const scale = $derived.by(() => {
    const days = plan.tasks.flatMap((t) => [dayNumber(t.earliestStart), dayNumber(t.earliestFinish)]);
    const first = Math.min(dayNumber(start), ...days);
    // What happens months later would press the rest together: six weeks after the start are enough to see.
    return new TimeScale(first, Math.min(Math.max(dayNumber(start) + 7, ...days), dayNumber(start) + 42), width);
  });
  const height = $derived(owners.length * lane + 14);
</script>

<figure aria-label={words().example.plan} class="py-2">
  <div class="grid grid-cols-[5.5rem_1fr] text-xs">
    <ul aria-hidden="true">
      {#each owners as [owner, name] (owner)}<li class="truncate" style:height="{lane}px" style:line-height="{lane}px">{name}</li>{/each}
    </ul>
    <svg viewBox="0 0 {width} {height}" class="block w-full" role="img" aria-label={words().example.plan}>
      {#each owners as [owner], i (owner)}
        {#each plan.tasks.filter((t) => t.owner === owner && scale.holds(t.earliestStart)) as task (task.key)}
          {@const from = scale.x(task.earliestStart)}
          <rect
            x={from}
            y={i * lane + 5}
            width={Math.max(scale.x(dayNumber(task.earliestFinish) + 1) - from - 1, 3)}
            height={lane - 10}
            rx="2"
            class="fill-sheet {task.slack !== null && task.slack < 0 ? 'stroke-rust' : 'stroke-sea'}"><title>{task.name}</title></rect
          >
        {/each}
      {/each}
      <line x1={scale.x(start)} x2={scale.x(start)} y1="0" y2={height - 12} class="stroke-ink" stroke-width="1.5" />
      <path d="M{scale.x(start)} 0 h10 l-3 4 3 4 h-10 z" class="fill-ink" />
      <text x={Math.min(scale.x(start), width - 60)} y={height - 2} class="fill-soft" font-size="9">{text.shortDay(start)}</text>
    </svg>
  </div>
</figure>

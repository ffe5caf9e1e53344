<script lang="ts">
  import { text } from '$lib/text/index.svelte';
  import type { Snippet } from 'svelte';
  import type { RowProblem } from './rowProblems';

  /** What is wrong in a row, with room to be read: what is to be mended first, then what only follows from it. */
  interface Props {
    problems: RowProblem[];
    /** Leads to the cell. */
    go: (problem: RowProblem) => void;
    /** What can be done about one. */
    acts?: Snippet<[RowProblem]>;
  }
  let { problems, go, acts }: Props = $props();
</script>

<ul class="border-rust max-w-[calc(100vw-6rem)] space-y-0.5 border-l-2 py-0.5 pl-2 text-xs">
  {#each problems as problem (problem.id)}
    <li id={problem.id} class="flex max-w-3xl flex-wrap items-baseline gap-x-2 {problem.follows ? 'text-soft pl-4' : ''}">
      <button type="button" class="font-semibold hover:underline" onclick={() => go(problem)}>{problem.label}</button>
      <span class={problem.follows ? '' : 'text-rust font-semibold'}>{problem.says}</span>
      {#if problem.follows}<span>{text.t.common.follows(problem.follows)}</span>{/if}
      {@render acts?.(problem)}
    </li>
  {/each}
</ul>

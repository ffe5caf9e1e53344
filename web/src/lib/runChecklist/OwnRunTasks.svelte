<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import RunTaskLine from './RunTaskLine.svelte';
  import { Settling } from './settling.svelte';
  import { words } from './words';

  /** The reader's own tasks of pay runs: nobody's in particular, and therefore apart from those of hires. */
  let { tasks }: { tasks: Api['OwnRunTask'][] } = $props();
  const w = $derived(words());
  const settling = new Settling();
</script>

<section aria-labelledby="own-run-tasks" class="pt-6">
  <h2 id="own-run-tasks" class="text-soft border-ink border-b pb-1 text-xs">{w.own}</h2>
  {#each tasks as { checklistId, payGroup, groupCode, run, task } (`${checklistId} ${task.key}`)}
    <RunTaskLine checklist={checklistId} {task} {settling} mayAll={false}>
      {#snippet about()}
        {@const name = w.run(payGroup, text.day(run.start), text.day(run.end))}
        {#if groupCode}<a
            class="link text-ink font-semibold"
            href="/people/pay-check?{new URLSearchParams({ group: groupCode, on: run.start })}">{name}</a
          >{:else}<strong class="text-ink">{name}</strong>{/if} · {w.cutOff(text.day(run.cutOff))}
      {/snippet}
    </RunTaskLine>
  {/each}
</section>

<script lang="ts">
  import { api, data, type Api } from '$lib/api/client';
  import type { TaskActs } from './taskActs.svelte';
  import { words } from './words';

  /** The steps of a task, each ticked by itself: with the last of them it is done. */
  interface Props {
    hire: string;
    task: string;
    steps: Api['StepResponse'][];
    /** Ticks them; nothing where the reader only looks. */
    acts?: TaskActs;
  }
  let { hire, task, steps, acts }: Props = $props();
  const w = $derived(words().steps);
  const tick = (step: Api['StepResponse'], isDone: boolean) =>
    acts?.doOrSay(
      () => data(api.POST('/api/tasks/step', { body: { tasks: [{ hire, key: task }], step: step.step, done: isDone } })),
      () => (isDone ? w.done(step.name) : w.undone(step.name))
    );
</script>

<fieldset class="py-1 text-xs" disabled={acts?.busy}>
  <legend class="text-soft">{w.count(steps.filter((s) => s.done).length, steps.length)}</legend>
  <ul>
    {#each steps as step (step.step)}
      <li>
        <label class="flex min-h-7 items-center gap-2 font-medium {step.done ? 'text-soft line-through' : 'text-ink'}"
          ><input type="checkbox" checked={step.done} disabled={!acts} onchange={(e) => tick(step, e.currentTarget.checked)} /><bdi
            >{step.name}</bdi
          ></label
        >
      </li>
    {/each}
  </ul>
</fieldset>

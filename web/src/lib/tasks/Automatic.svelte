<script lang="ts">
  import { api, data, type Api } from '$lib/api/client';
  import { fieldTitle } from '$lib/text/fieldLabels.svelte';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import type { TaskActs } from './taskActs.svelte';
  import { words } from './words';

  /** What a task sets by itself, and why it could not. */
  interface Props {
    hire: string;
    task: string;
    automatic: Api['AutomaticResponse'];
    /** Whether it is done. */
    isDone?: boolean;
    /** Has it tried again; nothing where the reader only looks. */
    acts?: TaskActs;
  }
  let { hire, task, automatic, isDone = false, acts }: Props = $props();
  const w = $derived(words().automatic);
  const retry = () =>
    acts?.doOrSay(
      () => data(api.POST('/api/tasks/retried', { body: { tasks: [{ hire, key: task }] } })),
      () => w.retried
    );
</script>

<div class="text-xs">
  <p class="text-soft">
    {isDone ? w.set : w.sets}
    {#each automatic.sets as setting, i (setting.field)}{i > 0 ? '; ' : ''}<span class="text-ink font-medium"
        >{fieldTitle(setting.field)}</span
      >
      {w.to} <code class="text-ink">{setting.formula}</code>{/each}
  </p>
  {#if automatic.trouble && !isDone}
    <p class="mt-1 flex flex-wrap items-baseline gap-x-3" role="status">
      <span class="text-rust font-medium"
        >{automatic.trouble.pointer.length > 1 ? `${fieldTitle(automatic.trouble.pointer.slice(1))}: ` : ''}{text.problem(
          automatic.trouble
        )}</span
      >
      {#if acts}<Button onclick={retry} disabled={acts.busy}>{w.retry}</Button>{/if}
    </p>
  {/if}
</div>

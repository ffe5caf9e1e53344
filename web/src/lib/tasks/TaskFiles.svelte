<script lang="ts">
  import { api, data, type Api } from '$lib/api/client';
  import type { TaskActs } from './taskActs.svelte';
  import { words } from './words';

  /** The files that go with a task. */
  interface Props {
    hire: string;
    task: string;
    files: Api['TaskFile'][];
    /** By which they are taken away; left out where they are only read. */
    acts?: TaskActs;
  }
  let { hire, task, files, acts }: Props = $props();
  const w = $derived(words().acts);
  const detach = (file: Api['TaskFile']) =>
    acts?.doOrSay(
      () => data(api.POST('/api/tasks/files', { body: { tasks: [{ hire, key: task }], attach: null, detach: [file.id] } })),
      () => w.detached(file.name)
    );
</script>

{#if files.length > 0}
  <p class="flex flex-wrap gap-x-4">
    {#each files as file (file.id)}
      <span>
        <a class="link" target="_blank" href="/api/hires/{hire}/tasks/{task}/files/{file.id}"><bdi>{file.name}</bdi></a>
        {#if acts}<button
            type="button"
            class="text-soft hover:text-rust min-h-6 min-w-6"
            aria-label={w.detach(file.name)}
            disabled={acts.busy}
            onclick={() => void detach(file)}>✕</button
          >{/if}
      </span>
    {/each}
  </p>
{/if}

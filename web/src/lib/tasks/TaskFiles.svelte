<script lang="ts">
  import type { Api } from '$lib/api/client';

  /** The files that go with a task. */
  let { hire, task, files }: { hire: string; task: string; files: Api['TaskFile'][] } = $props();
</script>

{#if files.length > 0}
  <p class="flex flex-wrap gap-x-4">
    {#each files as file (file.id)}<a class="link" target="_blank" href="/api/hires/{hire}/tasks/{task}/files/{file.id}"
        ><bdi>{file.name}</bdi></a
      >{/each}
  </p>
{/if}

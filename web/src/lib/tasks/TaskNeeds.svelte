<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { words } from './words';

  /** What of the record a task is about, and what of it is still missing. */
  interface Props {
    hire: string;
    task: Api['TaskResponse'];
  }
  let { hire, task }: Props = $props();
  const w = $derived(words().needs);
</script>

<p class="flex flex-wrap items-baseline gap-x-3 text-xs">
  <span class="text-soft">{task.kind === 'return' ? w.returned : task.completesItself ? w.itself : w.look}</span>
  {#each task.needs as need (need.label)}
    <span>
      {#if session.may('see record')}<a class="link" href="/hires/{hire}/record#section-{need.section}">{need.label}</a
        >{:else}{need.label}{/if}
      <span class={need.isMet ? 'text-soft' : 'text-ochre'}
        >{task.kind === 'return' ? (need.isMet ? w.back : w.out) : need.isMet ? w.has : w.lacks}</span
      >
    </span>
  {/each}
</p>

<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import { dueOf } from './due';
  import { words } from './words';

  /** The tasks whose dates or state would change. */
  let { tasks }: { tasks: Api['TaskMove'][] } = $props();
  const t = $derived(words().start);
</script>

<p class="mt-3 font-semibold">{t.changes(tasks.length)}</p>
{#if tasks.length > 0}
  <!-- svelte-ignore a11y_no_noninteractive_tabindex (it scrolls, so it must be reachable) -->
  <div class="border-ink mt-1 max-h-[38dvh] overflow-y-auto border-t" tabindex="0" role="region" aria-label={t.changes(tasks.length)}>
    <table class="w-full text-xs">
      <thead class="bg-sheet text-soft sticky top-0 text-left">
        <tr><th class="py-1 font-normal">{t.task}</th><th class="font-normal">{t.now}</th><th class="font-normal">{t.then}</th></tr>
      </thead>
      <tbody>
        {#each tasks as task (task.key)}
          <tr class="border-rule border-t">
            <td class="py-1 pr-3 font-semibold"
              >{task.name} <span class="text-soft font-normal">{text.owner(task.owner, task.ownerName)}</span></td
            >
            {#each [task.before, task.after] as side, i (i)}
              {@const due = dueOf(side)}
              <td class="pr-3 whitespace-nowrap">
                {due ? text.day(due) : '–'}
                <span class={side.state === 'late' ? 'text-rust' : side.state === 'atRisk' ? 'text-ochre' : 'text-soft'}
                  >{text.t.state[side.state]}</span
                >
              </td>
            {/each}
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
{/if}

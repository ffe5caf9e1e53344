<script lang="ts">
  import { api, data, type Api } from '$lib/api/client';
  import { hireKeys } from '$lib/hires/queries';
  import { text } from '$lib/text/index.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { createQuery } from '@tanstack/svelte-query';
  import { words } from './words';

  /** Who did what to this task, and who was reminded of it? */
  let { open = $bindable(), hire, task }: { open: boolean; hire: string; task: Api['TaskResponse'] } = $props();
  const w = $derived(words());
  const history = createQuery(() => ({
    queryKey: hireKeys.past(hire, task.key),
    queryFn: () => data(api.GET('/api/hires/{id}/tasks/{key}/history', { params: { path: { id: hire, key: task.key } } })),
    enabled: open
  }));
  const value = (shown: string | null) => (shown === null ? w.nothing : /^\d{4}-\d\d-\d\d$/.test(shown) ? text.day(shown) : shown);
  const lines = $derived(
    [
      ...(history.data?.changes ?? []).map((c) => ({
        id: c.id,
        at: c.at,
        said: `${c.by}: ${w.past[c.action] ?? c.action}`,
        more: [
          ...c.facts.map((f) => w.factLine(w.facts[f.name] ?? f.name, value(f.before), value(f.after))),
          ...(c.told.length > 0 ? [w.told(text.list(c.told))] : []),
          ...(c.why ? [c.why] : [])
        ]
      })),
      ...(history.data?.reminders ?? []).map((r) => ({
        id: `${r.kind} ${r.day} ${r.to}`,
        at: r.at,
        said: w.reminded(r.to, w.reminders[r.kind] ?? r.kind),
        more: r.refused ? [w.cameBack(r.refused)] : r.sentAt ? [] : [w.waits]
      }))
    ].sort((a, b) => b.at.localeCompare(a.at))
  );
</script>

<Dialog bind:open title="{w.acts.history}: {task.name}">
  <div class="px-5 pt-2 pb-5">
    {#if !history.data}<Waiting error={history.error} retry={() => history.refetch()} />
    {:else}
      <ol>
        {#each lines as line (line.id)}
          <li class="border-rule border-b py-1.5">
            <span class="text-soft text-xs">{text.day(line.at.slice(0, 10))}</span> <strong>{line.said}</strong>
            {#each line.more as more (more)}<span class="text-soft block text-xs"><bdi>{more}</bdi></span>{/each}
          </li>
        {:else}<li class="text-soft">{w.acts.historyNone}</li>{/each}
      </ol>
    {/if}
  </div>
</Dialog>

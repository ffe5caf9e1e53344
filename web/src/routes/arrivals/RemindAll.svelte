<script lang="ts">
  import { api, data } from '$lib/api/client';
  import { TaskActs } from '$lib/tasks/taskActs.svelte';
  import { words } from '$lib/tasks/words';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import { name, type Row } from './arrivals';

  /** Who is written to, of what holds up the hires that are shown? */
  let { open = $bindable(), rows }: { open: boolean; rows: Row[] } = $props();
  const w = $derived(words().remindAll);
  const acts = new TaskActs();
  const most = 500;
  const chased = $derived(
    rows
      .flatMap((row) =>
        row.holdUp ? [{ hire: row.id, who: name(row), task: row.holdUp, owner: text.owner(row.holdUp.owner, row.holdUp.ownerName) }] : []
      )
      .slice(0, most)
  );
  const owners = $derived([...new Set(chased.map((c) => c.owner))].sort((a, b) => a.localeCompare(b)));

  async function send() {
    await acts.doOrSay(
      () => data(api.POST('/api/tasks/reminders', { body: { tasks: chased.map((c) => ({ hire: c.hire, key: c.task.key })) } })),
      w.done
    );
    open = false;
  }
</script>

<Dialog bind:open title={w.title(chased.length)}>
  <div class="px-5 pt-2 pb-5">
    <p class="text-soft text-xs">{w.about}</p>
    <ul class="max-h-[50dvh] overflow-y-auto pt-1">
      {#each owners as owner (owner)}
        <li class="border-rule border-b py-1">
          <strong>{owner}</strong>
          <span class="text-soft text-xs">{text.list(chased.filter((c) => c.owner === owner).map((c) => `${c.task.name} (${c.who})`))}</span
          >
        </li>
      {/each}
    </ul>
    <div class="flex justify-end gap-3 pt-3">
      <Button onclick={() => (open = false)}>{words().acts.cancel}</Button>
      <Button look="primary" disabled={acts.busy || chased.length === 0} onclick={send}>{w.act}</Button>
    </div>
  </div>
</Dialog>

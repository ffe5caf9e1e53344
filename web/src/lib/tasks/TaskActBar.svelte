<script lang="ts">
  import { api, data, type Api } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { words as hireWords } from '$lib/hires/words';
  import { text } from '$lib/text/index.svelte';
  import { give } from '$lib/record/files';
  import Button from '$lib/ui/Button.svelte';
  import { failed } from '$lib/ui/toast';
  import AddTask from './AddTask.svelte';
  import ChangeTask from './ChangeTask.svelte';
  import DoneTask from './DoneTask.svelte';
  import SplitTask from './SplitTask.svelte';
  import TaskHistory from './TaskHistory.svelte';
  import { TaskActs } from './taskActs.svelte';
  import type { Ticking } from './ticking.svelte';
  import { words } from './words';

  /** The acts that fit one task of a hire. */
  interface Props {
    hire: string;
    occasion: Api['Occasion'];
    task: Api['TaskResponse'];
    tasks: Api['TaskResponse'][];
    ticking: Ticking;
    mine: boolean;
    /** Whether nothing of it is changed any more. */
    past: boolean;
    onskip: () => void;
  }
  let { hire, occasion, task, tasks, ticking, mine, past, onskip }: Props = $props();
  const w = $derived(words().acts);
  const t = $derived(hireWords().checklist);
  const acts = new TaskActs();
  let opened = $state<'change' | 'done' | 'split' | 'add' | 'history'>();
  const isOpen = $derived(!task.done && !task.skippedWhy);
  const all = $derived(session.may('edit task') && !past);
  const tell = (open: boolean) => !open && (opened = undefined);

  const remind = () =>
    acts.doOrSay(
      () => data(api.POST('/api/tasks/reminders', { body: { tasks: [{ hire, key: task.key }] } })),
      () => w.reminded(task.name)
    );

  async function attach(file: File | undefined) {
    if (!file) return;
    try {
      const given = await give(file);
      await acts.doOrSay(
        () => data(api.POST('/api/tasks/files', { body: { tasks: [{ hire, key: task.key }], attach: [given.id], detach: null } })),
        () => w.attached(given.name)
      );
    } catch (e) {
      failed(text.failure(e));
    }
  }

  const pause = () =>
    acts.doOrSay(
      () => data(api.POST('/api/tasks/paused', { body: { tasks: [{ hire, key: task.key }], paused: !task.remindersPaused } })),
      () => (task.remindersPaused ? w.resumed(task.name) : w.paused(task.name))
    );
</script>

<div class="flex flex-col items-end gap-1.5">
  <div class="flex flex-wrap justify-end gap-3">
    {#if task.done}
      {#if task.mayTick}<Button onclick={() => ticking.untick(task)}>{t.undoDone}</Button>{/if}
    {:else if task.skippedWhy}
      {#if all && !task.skippedByCondition}<Button onclick={() => ticking.unskip(task)}>{t.unskip}</Button>{/if}
    {:else}
      {#if all && !mine}<Button disabled={acts.busy} onclick={remind}>{w.remind(text.owner(task.owner, task.ownerName))}</Button>{/if}
      {#if all}
        <Button onclick={() => (opened = 'change')}>{w.change}</Button>
        <Button onclick={onskip}>{t.skip}</Button>
      {/if}
      {#if task.mayTick}<Button look="primary" key="d" onclick={() => ticking.tick(task)}>{t.act}</Button>{/if}
    {/if}
  </div>
  <div class="flex flex-wrap justify-end gap-x-4 text-xs">
    {#if isOpen && task.mayTick}<button type="button" class="link" onclick={() => (opened = 'done')}>{w.doneOn}</button>{/if}
    {#if isOpen && all}
      {#if task.work > 1}<button type="button" class="link" onclick={() => (opened = 'split')}>{w.split}</button>{/if}
      <button type="button" class="link" onclick={() => (opened = 'add')}>{w.add}</button>
      <button type="button" class="link" disabled={acts.busy} onclick={pause}>{task.remindersPaused ? w.resume : w.pause}</button>
    {/if}
    {#if !past && (all || task.mayTick) && session.may('see record')}
      <label class="link cursor-pointer"
        >{w.attach}<input
          type="file"
          class="sr-only"
          onchange={async (e) => {
            const input = e.currentTarget;
            await attach(input.files?.[0]);
            input.value = '';
          }}
        /></label
      >
    {/if}
    <button type="button" class="link" onclick={() => (opened = 'history')}>{w.history}</button>
  </div>
</div>

{#key `${task.key} ${opened}`}
  {#if opened === 'change'}<ChangeTask bind:open={() => true, tell} {hire} {task} {acts} {occasion} />{/if}
  {#if opened === 'done'}<DoneTask bind:open={() => true, tell} {hire} {task} {acts} />{/if}
  {#if opened === 'split'}<SplitTask bind:open={() => true, tell} {hire} {task} {acts} />{/if}
  {#if opened === 'add'}<AddTask bind:open={() => true, tell} {hire} {task} {tasks} {acts} />{/if}
  {#if opened === 'history'}<TaskHistory bind:open={() => true, tell} {hire} {task} />{/if}
{/key}

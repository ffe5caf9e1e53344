<script lang="ts">
  import { dueWords } from '$lib/hires/due';
  import type { Api } from '$lib/api/client';
  import type { Ticking } from '$lib/tasks/ticking.svelte';
  import { session } from '$lib/api/session.svelte';
  import TaskActBar from '$lib/tasks/TaskActBar.svelte';
  import { meetingWords } from '$lib/tasks/meeting';
  import { words as taskWords } from '$lib/tasks/words';
  import ConditionWords from '$lib/templates/ConditionWords.svelte';
  import TaskNeeds from '$lib/tasks/TaskNeeds.svelte';
  import Automatic from '$lib/tasks/Automatic.svelte';
  import TaskSteps from '$lib/tasks/TaskSteps.svelte';
  import { TaskActs } from '$lib/tasks/taskActs.svelte';
  import TaskFiles from '$lib/tasks/TaskFiles.svelte';
  import { words } from '$lib/hires/words';
  import { occasionWords } from '$lib/occasions/words';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import Markdown from '$lib/ui/Markdown.svelte';
  import FooterSheet from '$lib/ui/FooterSheet.svelte';
  import TextField from '$lib/ui/TextField.svelte';

  /** The task selected in a checklist: what it is, and the acts that fit. */
  interface Props {
    hire: string;
    occasion: Api['Occasion'];
    task: Api['TaskResponse'];
    tasks: Api['TaskResponse'][];
    ticking: Ticking;
    mine: boolean;
    /** Whether the newcomer has settled: then nothing of it is changed any more. */
    past: boolean;
  }
  let { hire, occasion, task, tasks, ticking, mine, past }: Props = $props();
  const acts = $derived(taskWords().acts);
  const t = $derived(words().checklist);
  const sheetActs = new TaskActs();
  let skipping = $state(false);
  let why = $state('');
  let missing = $state(false);

  const facts = $derived(
    [
      task.since && task.since < session.today
        ? t.since(text.owner(task.owner, task.ownerName, mine), text.day(task.since))
        : text.owner(task.owner, task.ownerName, mine),
      task.kind === 'toDo' ? '' : taskWords().kinds[task.kind],
      t.work(task.work),
      task.after.length > 0 ? t.after(text.list(task.after.map((a) => a.name))) : '',
      task.takenBy ? acts.takenBy(task.takenBy) : '',
      task.pinned ? acts.pinned(text.day(task.pinned)) : '',
      task.done || task.skippedWhy ? '' : dueWords(task),
      meetingWords(task.meeting),
      task.dayOne ? occasionWords(occasion).beforeIt : '',
      task.required ? '' : t.optional,
      task.added ? acts.here : '',
      task.remindersPaused && !task.done && !task.skippedWhy ? acts.isPaused : ''
    ].filter(Boolean)
  );

  /** When it was put here, where that is not the day it was done. */
  const noted = $derived(
    task.change && (task.skippedWhy || (task.done && task.change.at.slice(0, 10) !== task.done))
      ? t.noted(text.day(task.change.at.slice(0, 10)))
      : ''
  );

  async function skip(event: SubmitEvent) {
    event.preventDefault();
    missing = why.trim() === '';
    if (missing) return;
    await ticking.skip(task, why.trim());
    skipping = false;
    why = '';
  }
</script>

<FooterSheet label={task.name} tone={(task.state === 'late' && !task.beforeKnown) || task.state === 'atRisk' ? 'rust' : 'sea'}>
  <div class="min-w-0 flex-1 basis-72">
    <p><span class="text-base font-semibold">{task.name}</span> <span class="text-soft text-xs">{facts.join(' · ')}</span></p>
    {#if task.done}
      <p class="text-soft text-xs">
        {[t.doneOn(text.day(task.done)), task.doneBy ? t.by(task.doneBy) : '', noted].filter(Boolean).join(', ')}
      </p>
    {:else if task.skippedByCondition}
      <p class="text-soft text-xs">
        {text.t.state.skipped}{#if task.when && session.may('edit template')}, {acts.byConditionOf}
          <ConditionWords when={task.when} />{:else}: {acts.byCondition}{/if}
      </p>
    {:else if task.skippedWhy}
      <p class="text-soft text-xs">
        {[text.t.state.skipped, task.change?.action === 'task.skipped' ? t.by(task.change.by) : '', noted].filter(Boolean).join(', ')}: {task.skippedWhy}
      </p>
    {/if}
    {#if task.steps.length > 0 && !task.skippedWhy}<TaskSteps
        {hire}
        task={task.key}
        steps={task.steps}
        acts={past || !task.mayTick ? undefined : sheetActs}
      />{/if}
    {#if task.automatic && !task.skippedWhy}<Automatic
        {hire}
        task={task.key}
        automatic={task.automatic}
        isDone={task.done !== null}
        acts={past || !task.mayTick ? undefined : sheetActs}
      />{/if}
    {#if task.needs.length > 0}<TaskNeeds {hire} {task} />{/if}
    {#if task.note}<p class="border-ochre border-l-4 pl-2 text-xs whitespace-pre-line"><bdi>{task.note}</bdi></p>{/if}
    {#if task.instructions || task.contact || task.attachments.length > 0}
      <div class="text-soft text-xs">
        {#if task.instructions}<Markdown text={task.instructions} />{/if}{#if task.contact}<p>
            {words().help(text.owner(task.contact, task.contactName), task.contactWhy ?? '')}
          </p>{/if}<TaskFiles {hire} task={task.key} files={task.attachments} acts={past || !task.mayTick ? undefined : sheetActs} />
      </div>
    {/if}
  </div>
  <TaskActBar {hire} {occasion} {task} {tasks} {ticking} {mine} {past} onskip={() => (skipping = true)} />
</FooterSheet>

<Dialog bind:open={skipping} title={t.skipTitle(task.name)} focus="#skip-why">
  <form class="space-y-3 px-5 pt-3 pb-5" onsubmit={skip}>
    <TextField id="skip-why" label={t.skipWhy} bind:value={why} maxlength={500} error={missing ? text.t.problems.missing : undefined} />
    <div class="flex justify-end gap-3">
      <Button onclick={() => (skipping = false)}>{text.t.common.cancel}</Button>
      <Button type="submit" look="danger">{t.skipAct}</Button>
    </div>
  </form>
</Dialog>

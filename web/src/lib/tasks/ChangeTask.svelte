<script lang="ts">
  import { api, ApiProblem, data, type Api } from '$lib/api/client';
  import TaskMoves from '$lib/hires/TaskMoves.svelte';
  import { hireKeys } from '$lib/hires/queries';
  import { words as hireWords } from '$lib/hires/words';
  import { occasionWords } from '$lib/occasions/words';
  import { keys } from '$lib/keys/keys.svelte';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import DateField from '$lib/ui/DateField.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import Line from '$lib/ui/Line.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { settled } from '$lib/ui/settled.svelte';
  import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
  import { untrack } from 'svelte';
  import { minutesOf } from './meeting';
  import MeetingFields from './MeetingFields.svelte';
  import OwnerField from './OwnerField.svelte';
  import { FormProblems } from './problems.svelte';
  import type { TaskActs } from './taskActs.svelte';
  import { wholeDays } from './wholeDays';
  import { words } from './words';

  /** What would it do if this task took less, waited for less, were somebody else's or had a day of its own? Tried while it is typed. */
  interface Props {
    open: boolean;
    hire: string;
    task: Api['TaskResponse'];
    acts: TaskActs;
    occasion: Api['Occasion'];
  }
  let { open = $bindable(), hire, task, acts, occasion }: Props = $props();
  const w = $derived(words().acts);
  const start = $derived(hireWords().start);
  const problems = new FormProblems();

  let owner = $state(untrack(() => task.owner));
  let work = $state(untrack(() => String(task.work)));
  let day = $state<string | null>(untrack(() => task.pinned));
  let note = $state(untrack(() => task.note ?? ''));
  let meeting = $state(
    untrack(() => ({ at: task.meeting?.at ?? '', minutes: String(task.meeting?.minutes ?? ''), place: task.meeting?.place ?? '' }))
  );
  let why = $state('');
  let without = $state<string[]>([]);
  let lags = $state<Record<string, string>>(untrack(() => Object.fromEntries(task.after.map((a) => [a.key, String(a.lag)]))));

  const changedLags = $derived(
    Object.fromEntries(
      task.after
        .filter((a) => !without.includes(a.key) && wholeDays(lags[a.key] ?? '') !== undefined && wholeDays(lags[a.key]!) !== a.lag)
        .map((a) => [a.key, wholeDays(lags[a.key]!)!])
    )
  );
  const wrongWork = $derived(wholeDays(work) === undefined ? w.workWrong : undefined);
  const isShaped = $derived(wholeDays(work) !== task.work || without.length > 0 || Object.keys(changedLags).length > 0);
  const isMoved = $derived(
    meeting.at.trim() !== (task.meeting?.at ?? '') ||
      minutesOf(meeting.minutes) !== (task.meeting?.minutes ?? null) ||
      meeting.place.trim() !== (task.meeting?.place ?? '')
  );
  // What the plan goes by; a place and a time of day change nothing in it.
  const isPlanned = $derived(isShaped || owner !== task.owner || day !== task.pinned);
  const isChanged = $derived(isPlanned || isMoved || note.trim() !== (task.note ?? ''));

  const asked = settled(() => ({ work: wholeDays(work) ?? null, without, owner: owner === task.owner ? null : owner, day, skip: false }));
  const trial = createQuery(() => ({
    queryKey: hireKeys.trial(hire, task.key, asked.current),
    queryFn: () =>
      data(api.POST('/api/hires/{id}/tasks/{key}/trial', { params: { path: { id: hire, key: task.key } }, body: asked.current })),
    enabled: open && isChanged,
    placeholderData: keepPreviousData,
    retry: false
  }));
  const tried = $derived(isChanged ? trial.data : undefined);
  const tryProblem = (part: string) => (trial.error instanceof ApiProblem ? text.problem(trial.error.at(`/${part}`)) : undefined);

  async function save() {
    if (!isChanged || wrongWork || acts.busy) return;
    const tasks = [{ hire, key: task.key }];
    const reason = why.trim() || null;
    const steps: (() => Promise<Api['TasksChangedResponse']>)[] = [];
    if (owner !== task.owner) steps.push(() => data(api.POST('/api/tasks/owner', { body: { tasks, owner, why: reason } })));
    if (isShaped)
      steps.push(() =>
        data(
          api.POST('/api/tasks/shape', {
            body: { tasks, work: wholeDays(work) === task.work ? null : wholeDays(work)!, lags: changedLags, without, why: reason }
          })
        )
      );
    if (day !== task.pinned) steps.push(() => data(api.POST('/api/tasks/day', { body: { tasks, day } })));
    if (isMoved)
      steps.push(() =>
        data(
          api.POST('/api/tasks/meeting', {
            body: { tasks, at: meeting.at.trim() || null, minutes: minutesOf(meeting.minutes), place: meeting.place.trim() || null }
          })
        )
      );
    if (note.trim() !== (task.note ?? ''))
      steps.push(() => data(api.POST('/api/tasks/note', { body: { tasks, note: note.trim() || null } })));
    if (
      await problems.run(
        () => acts.do(steps, () => w.changed(task.name)),
        ['owner', 'work', 'day', 'at', 'minutes', 'place', 'note', 'why']
      )
    )
      open = false;
  }

  $effect(() => (open ? keys.use(() => [{ key: 'Ctrl+s', run: () => void save(), whileTyping: true }], true) : undefined));
</script>

<Dialog bind:open title={w.changeTitle(task.name)} focus="#task-work">
  <form
    class="px-5 pt-3 pb-4"
    onsubmit={(e) => {
      e.preventDefault();
      void save();
    }}
  >
    <div class="grid gap-x-6 gap-y-1 sm:grid-cols-2">
      <OwnerField
        id="task-owner"
        label={w.owner}
        value={owner}
        shown={owner === task.owner ? (task.ownerName ?? '') : ''}
        error={problems.at('owner')}
        onchange={(v) => (owner = v)}
      />
      <TextField id="task-work" label={w.work} bind:value={work} inputmode="numeric" error={wrongWork ?? problems.at('work')} />
      <DateField
        id="task-day"
        label={w.day}
        bind:value={day}
        note={day ? undefined : w.dayNote}
        error={problems.at('day') ?? tryProblem('day')}
      />
      {#if task.kind === 'attend'}
        <MeetingFields {...meeting} error={(part) => problems.at(part)} onchange={(part, typed) => (meeting[part] = typed)} />
      {/if}
      <TextField id="task-why" label={w.why} bind:value={why} maxlength={500} error={problems.at('why')} />
    </div>
    {#if task.after.length > 0}
      <fieldset class="mt-1">
        <legend class="text-soft text-xs">{w.waits}</legend>
        {#each task.after as link (link.key)}
          <div class="flex flex-wrap items-center gap-x-4 gap-y-1 py-0.5">
            <label class="flex items-center gap-2 font-medium"
              ><input
                type="checkbox"
                checked={!without.includes(link.key)}
                onchange={(e) => (without = e.currentTarget.checked ? without.filter((k) => k !== link.key) : [...without, link.key])}
              />{link.name}</label
            >
            {#if !without.includes(link.key)}
              <label class="text-soft flex items-baseline gap-1 text-xs"
                ><input
                  class="border-rule w-10 border-b bg-transparent text-right"
                  inputmode="numeric"
                  bind:value={lags[link.key]}
                />{w.lag}</label
              >
            {/if}
          </div>
        {/each}
      </fieldset>
    {/if}
    <Line id="task-note" label={w.note} note={w.noteHint} error={problems.at('note')}>
      <textarea
        id="task-note"
        bind:value={note}
        rows="1"
        maxlength="2000"
        dir="auto"
        class="field-sizing-content max-h-32 w-full bg-transparent px-0.5 py-1 font-medium outline-none"
        aria-describedby="task-note-note"></textarea>
    </Line>
    <div aria-live="polite">
      {#if tried}
        <p class="mt-1">
          <strong class={tried.after.feasible ? 'text-sea' : 'text-rust'}>{tried.after.feasible ? start.ready : start.notReady}</strong>
          {#if !tried.after.feasible && tried.after.soonestStart}{occasionWords(occasion).soonest(text.day(tried.after.soonestStart))}{/if}
          {#if tried.after.holdUp && tried.after.holdUp.slack < 0}{hireWords().checklist.holdsUp(
              tried.after.holdUp.name,
              -tried.after.holdUp.slack
            )}{/if}
        </p>
        <TaskMoves tasks={tried.tasks} />
      {:else}<p class="text-soft mt-1 text-xs">{w.nothing}</p>{/if}
    </div>
    <div class="mt-4 flex flex-wrap justify-end gap-3">
      <Button onclick={() => (open = false)}>{w.cancel}</Button>
      <Button type="submit" look="primary" key="Ctrl+s" disabled={!isChanged || !!wrongWork || acts.busy}>{w.save}</Button>
    </div>
  </form>
</Dialog>

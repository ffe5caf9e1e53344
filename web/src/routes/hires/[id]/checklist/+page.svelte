<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import type { Api } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import TaskBar from '$lib/drawing/TaskBar.svelte';
  import TimeAxis from '$lib/drawing/TimeAxis.svelte';
  import { TimeScale } from '$lib/drawing/TimeScale';
  import HireTitle from '$lib/hires/HireTitle.svelte';
  import CloseHire from '$lib/hires/CloseHire.svelte';
  import MoveStart from '$lib/hires/MoveStart.svelte';
  import { hireQuery } from '$lib/hires/queries';
  import { keys } from '$lib/keys/keys.svelte';
  import { dayNumber } from '$lib/text/dates';
  import { text } from '$lib/text/index.svelte';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { createQuery } from '@tanstack/svelte-query';
  import Standing from './Standing.svelte';
  import TaskSheet from './TaskSheet.svelte';
  import StageGate from '$lib/tasks/StageGate.svelte';
  import { words as taskWords } from '$lib/tasks/words';
  import { Ticking } from '$lib/tasks/ticking.svelte';
  import { words } from '$lib/hires/words';
  import { occasionWords } from '$lib/occasions/words';
  import { groupChecklist, type View } from '$lib/tasks/checklistViews';

  type Task = Api['TaskResponse'];
  const id = $derived(page.params.id!);
  const hire = createQuery(() => hireQuery(id));
  const t = $derived(words().checklist);
  const ticking = new Ticking(() => id);

  let selected = $state<string>();
  let table = $state<HTMLElement>();
  let chartWidth = $state(600);
  let by = $state<View>('stage');
  let proving = $state(false);
  let moving = $state(false);
  let ending = $state(false);
  let moveTo = $state<string | null>(null);

  const tasks = $derived(hire.data?.tasks ?? []);
  const chosen = $derived(tasks.find((k) => k.key === selected));
  const groups = $derived(
    by === 'stage'
      ? (hire.data?.stages ?? []).map((s) => ({
          id: s.key,
          name: s.name,
          note: stageNote(s),
          stage: s,
          tasks: tasks.filter((k) => k.stage === s.key)
        }))
      : groupChecklist(tasks, by).map((g) => ({
          ...g,
          name: by === 'date' ? t.byDate : text.owner(g.tasks[0]!.owner, g.tasks[0]!.ownerName, isMine(g.tasks[0]!)),
          note: '',
          stage: undefined
        }))
  );
  const shown = $derived(groups.flatMap((g) => g.tasks));
  const chained = $derived(proving ? (hire.data?.chain ?? []).map((l) => l.key) : []);
  const scale = $derived.by(() => {
    const today = dayNumber(hire.data?.today ?? session.today);
    const start = dayNumber(hire.data?.start ?? session.today);
    // What is past is seen whole.
    if (hire.data?.settled) return new TimeScale(Math.min(dayNumber(hire.data.accepted), start) - 7, today + 7, chartWidth);
    const from = Math.min(today - 7, start - 7);
    return new TimeScale(Math.max(from, today - 28), Math.max(today, start) + 35, chartWidth);
  });
  /** Who works here has their record among People. */
  const recordOf = (h: Api['ChecklistResponse'] | undefined) =>
    h && h.occasion !== 'arrival' ? `/people/${h.employmentId}` : `/hires/${id}/record`;
  const isMine = (task: Task) => task.owner === 'coordinator' && session.may('edit task');

  function stageNote(stage: Api['StageResponse']) {
    const g = taskWords().gate;
    if (stage.state === 'passed')
      return [
        stage.passed ? g.passedOn(text.day(stage.passed)) : t.stagePassed,
        stage.word ? `${g.byHand(stage.word.by)}: ${stage.word.why}` : ''
      ]
        .filter(Boolean)
        .join(' · ');
    if (stage.state === 'open')
      return [t.stageOpen(stage.done, stage.of), stage.word ? `${g.kept(stage.word.by)}: ${stage.word.why}` : '']
        .filter(Boolean)
        .join(' · ');
    const waits = stage.waitsFor.map((k) => hire.data?.stages.find((s) => s.key === k)?.name ?? k);
    return (stage.opens ? t.stageOpens(text.day(stage.opens)) : '') + (waits.length > 0 ? t.once(text.list(waits)) : '');
  }
  const slackNote = (task: Task) =>
    task.slack === null || task.beforeKnown
      ? ''
      : task.slack < 0
        ? task.state === 'late'
          ? text.t.arrivals.late(-task.slack)
          : text.t.arrivals.short(-task.slack)
        : text.t.arrivals.slack(task.slack);
  const tone = (task: Task) =>
    task.state === 'late' && !task.beforeKnown ? 'text-rust' : task.state === 'atRisk' ? 'text-ochre' : 'text-soft';

  function step(by: number) {
    const at = shown.findIndex((k) => k.key === selected);
    const next = shown[at < 0 ? (by > 0 ? 0 : shown.length - 1) : Math.min(Math.max(at + by, 0), shown.length - 1)];
    if (!next) return;
    selected = next.key;
    table?.querySelector<HTMLElement>(`[data-key="${CSS.escape(next.key)}"]`)?.focus();
  }
  function move(to: string | null) {
    moveTo = to;
    moving = true;
  }

  $effect(() =>
    keys.use(() => [
      { key: 'ArrowDown', label: text.t.keys.down, run: () => step(1) },
      { key: 'ArrowUp', label: text.t.keys.up, run: () => step(-1) },
      ...(session.may('see record') ? [{ key: 'e', label: text.t.keys.record, run: () => void goto(recordOf(hire.data)) }] : []),
      ...(chosen && chosen.mayTick && !chosen.done && !chosen.skippedWhy
        ? [{ key: 'd', label: text.t.keys.done, run: () => void ticking.tick(chosen) }]
        : []),
      { key: 'Escape', run: () => (selected ? (selected = undefined) : void goto(session.home)) }
    ])
  );
</script>

<svelte:head><title>{hire.data ? `${hire.data.givenName} ${hire.data.familyName}` : text.t.hire.checklist} · Fid</title></svelte:head>

{#if !hire.data}
  <Waiting error={hire.error} retry={() => hire.refetch()} />
{:else}
  {@const h = hire.data}
  <div class="page">
    <HireTitle
      {...h}
      filled={h.filled}
      of={h.of}
      hire={{ id: h.id, done: h.readiness.done, of: h.readiness.of, settled: h.settled !== null }}
    />
    {#if h.settled}
      <p class="border-sea bg-sea-tint my-3 border-l-4 px-4 py-2">
        <strong class="text-sea">{occasionWords(h.occasion).settled(text.day(h.settled))}</strong>
        {taskWords().gate.asItWas}
      </p>
    {:else}<Standing hire={h} {move} end={() => (ending = true)} bind:proving />{/if}
    <div role="group" aria-label={t.views.label} class="text-soft flex gap-x-4 pb-1 text-xs">
      {#each ['stage', 'owner', 'date'] as const as view (view)}
        <button
          type="button"
          aria-pressed={by === view}
          class="min-h-6 border-b-2 {by === view ? 'border-ink text-ink font-semibold' : 'hover:text-ink border-transparent'}"
          onclick={() => (by = view)}>{t.views[view]}</button
        >
      {/each}
    </div>

    <div bind:this={table} role="grid" aria-label={text.t.hire.checklist} class="border-ink border-t">
      <div role="row" class="task bg-paper sticky top-0 z-10">
        <span role="columnheader" class="sr-only">{t.columns.task}</span>
        <span role="columnheader" class="sr-only">{t.columns.owner}</span>
        <span role="columnheader" class="sr-only">{t.columns.state}</span>
        <span role="columnheader" class="sr-only">{t.columns.slack}</span>
        <div role="columnheader" class="plan" bind:clientWidth={chartWidth}>
          <span class="sr-only">{t.columns.plan}</span><TimeAxis
            {scale}
            today={h.settled ? session.today : h.today}
            start={h.start}
            onput={!h.settled && session.may('edit hire') ? move : undefined}
          />
        </div>
      </div>
      {#each groups as group (group.id)}
        {#if group.tasks.length > 0}
          <div role="row" class="border-ink border-b">
            <div role="rowheader" class="font-display px-3 pt-3 pb-1.5 text-base font-bold">
              {group.name} <span class="text-soft font-sans text-xs font-normal tracking-normal">{group.note}</span>
              {#if group.stage && group.stage.state !== 'closed' && session.may('edit task')}<StageGate
                  hire={h.id}
                  stage={group.stage}
                />{/if}
            </div>
          </div>
          {#each group.tasks as task (task.key)}
            <!-- svelte-ignore a11y_click_events_have_key_events (the keys of the page do the same) -->
            <div
              role="row"
              data-key={task.key}
              tabindex={selected === task.key || (!chosen && task.key === shown[0]?.key) ? 0 : -1}
              aria-selected={selected === task.key}
              class="task border-b {selected === task.key
                ? 'bg-sheet outline-sea outline-2 -outline-offset-2'
                : chained.includes(task.key)
                  ? 'bg-rust-tint border-rule [--faint:var(--soft)]'
                  : 'border-rule'}"
              onfocus={() => (selected = task.key)}
              onclick={() => (selected = task.key)}
            >
              <div
                role="gridcell"
                class="name min-w-0 truncate py-1.5 pl-3 font-semibold {task.done || task.skippedWhy
                  ? 'text-faint font-normal line-through'
                  : ''}"
              >
                {task.name}
              </div>
              <div role="gridcell" class="owner text-soft truncate py-1.5 text-xs">
                {text.owner(task.owner, task.ownerName, isMine(task))}
              </div>
              {#if task.done}
                <div role="gridcell" class="state py-1.5 text-xs whitespace-nowrap">
                  <strong>{t.doneOn(text.shortDay(task.done))}</strong>
                </div>
              {:else}
                <div
                  role="gridcell"
                  class="state py-1.5 font-semibold whitespace-nowrap {task.state === 'late' || task.state === 'atRisk' ? tone(task) : ''}"
                >
                  {text.t.state[task.beforeKnown ? 'beforeKnown' : task.state]}
                </div>
                <div role="gridcell" class="slack py-1.5 text-xs whitespace-nowrap {tone(task)}">{slackNote(task)}</div>
              {/if}
              <div role="gridcell" class="plan overflow-hidden">
                <TaskBar {scale} {task} start={h.start} today={h.settled ? session.today : h.today} accepted={h.accepted} />
              </div>
            </div>
          {/each}
        {/if}
      {/each}
    </div>
  </div>
  {#if chosen}
    <TaskSheet hire={id} occasion={h.occasion} task={chosen} {tasks} {ticking} mine={isMine(chosen)} past={h.settled !== null} />
  {/if}
  {#if session.may('edit hire')}<MoveStart bind:open={moving} {id} to={moveTo} />{/if}
  {#if ending}
    <CloseHire
      bind:open={ending}
      {id}
      occasion={h.occasion}
      employmentId={h.employmentId}
      name={`${h.givenName} ${h.familyName}`.trim()}
      start={h.start}
      onmove={() => move(null)}
    />
  {/if}
{/if}

<style>
  .task {
    display: grid;
    grid-template-columns: minmax(9rem, 14rem) 6rem 4.6rem 6.2rem minmax(8rem, 1fr);
    grid-template-areas: 'name owner state slack plan';
    column-gap: 0.5rem;
    align-items: center;
  }
  .name {
    grid-area: name;
  }
  .owner {
    grid-area: owner;
  }
  .state {
    grid-area: state;
  }
  .slack {
    grid-area: slack;
  }
  .plan {
    grid-area: plan;
  }
  @media (max-width: 60rem) {
    .task {
      grid-template-columns: minmax(0, 1fr) auto auto;
      grid-template-areas: 'name state slack' 'owner plan plan';
      column-gap: 0.75rem;
    }
    .name {
      white-space: normal;
    }
    .owner {
      padding-left: 0.75rem;
      min-width: 5rem;
    }
    .state,
    .slack {
      padding-right: 0.5rem;
    }
    .plan {
      width: min(15rem, 55vw);
      justify-self: end;
    }
  }
</style>

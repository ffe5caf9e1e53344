<script lang="ts">
  import { dueOf } from '$lib/hires/due';
  import Away from '$lib/tasks/Away.svelte';
  import Automatic from '$lib/tasks/Automatic.svelte';
  import TaskSteps from '$lib/tasks/TaskSteps.svelte';
  import TaskFiles from '$lib/tasks/TaskFiles.svelte';
  import Markdown from '$lib/ui/Markdown.svelte';
  import { goto } from '$app/navigation';
  import { api, data } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import OwnRunTasks from '$lib/runChecklist/OwnRunTasks.svelte';
  import { Ticking } from '$lib/tasks/ticking.svelte';
  import { keys } from '$lib/keys/keys.svelte';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Rows from '$lib/ui/Rows.svelte';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { createQuery } from '@tanstack/svelte-query';
  import { meetingWords } from '$lib/tasks/meeting';
  import { words } from '$lib/hires/words';
  import { occasionWords } from '$lib/occasions/words';
  import { words as taskWords } from '$lib/tasks/words';
  import { taskKeys } from '$lib/tasks/queries';
  import { TaskActs } from '$lib/tasks/taskActs.svelte';
  import { taskId, type Task, type TaskGroup } from '$lib/tasks/taskGroups';
  import { TaskList } from '$lib/tasks/taskList.svelte';

  const tasks = createQuery(() => ({ queryKey: taskKeys.mine, queryFn: () => data(api.GET('/api/tasks')) }));
  const t = $derived(taskWords());
  let selected = $state<string>();
  let lists = $state<Partial<Record<string, Rows<Task>>>>({});
  let pageWidth = $state(1280);
  const ticking = new Ticking(() => chosen?.hireId ?? '');
  const acts = new TaskActs();

  const all = $derived(tasks.data?.tasks ?? []);
  const ofRuns = $derived(tasks.data?.runs ?? []);
  const list = new TaskList(() => all);
  const shown = $derived(list.groups.flatMap((g) => g.tasks));
  const chosen = $derived(all.find((k) => taskId(k) === selected));
  const late = $derived(
    all.filter((k) => k.state === 'late' && !k.beforeKnown).length + ofRuns.filter((r) => r.task.state === 'late').length
  );
  const titleOf = (group: TaskGroup) => group.name ?? (group.id === 'now' ? t.now : t.later);
  const tone = (task: Task) =>
    task.state === 'late' && !task.beforeKnown ? 'text-rust' : task.state === 'atRisk' ? 'text-ochre' : 'text-soft';

  function tick(task: Task) {
    selected = taskId(task);
    void ticking.tick(task, task.hireId);
  }
  const refs = (of: Task[]) => of.map((k) => ({ hire: k.hireId, key: k.key }));
  const tickAll = (of: Task[]) =>
    acts.doOrSay(() => data(api.POST('/api/tasks/done', { body: { tasks: refs(of), done: null, by: null } })), t.acts.many);
  const take = (task: Task, takes: boolean) =>
    acts.doOrSay(
      () => data(api.POST('/api/tasks/taken', { body: { tasks: refs([task]), take: takes } })),
      () => (takes ? t.acts.took(task.name) : t.acts.gaveBack(task.name))
    );
  function step(by: number) {
    const at = shown.findIndex((k) => taskId(k) === selected);
    const next = shown[at < 0 ? (by > 0 ? 0 : shown.length - 1) : Math.min(Math.max(at + by, 0), shown.length - 1)];
    if (!next) return;
    selected = taskId(next);
    const group = list.groups.find((g) => g.tasks.includes(next))!;
    void lists[group.id]?.focus(group.tasks.indexOf(next), `[data-id="${CSS.escape(taskId(next))}"]`);
  }

  $effect(() =>
    keys.use(() => [
      { key: 'ArrowDown', label: text.t.keys.down, run: () => step(1) },
      { key: 'ArrowUp', label: text.t.keys.up, run: () => step(-1) },
      ...(chosen && !chosen.completesItself ? [{ key: 'd', label: text.t.keys.done, run: () => tick(chosen) }] : []),
      ...(chosen && session.may('see hire')
        ? [{ key: 'Enter', label: text.t.keys.open, run: () => void goto(`/hires/${chosen.hireId}/checklist`) }]
        : []),
      { key: 'Escape', run: () => (selected = undefined) }
    ])
  );
</script>

<svelte:window bind:innerWidth={pageWidth} />
<svelte:head><title>{text.t.places.tasks} · Fid</title></svelte:head>

{#snippet item(task: Task, i: number)}
  {@const due = dueOf(task)}
  <div
    role="listitem"
    aria-setsize={list.groups.find((g) => g.tasks.includes(task))?.tasks.length}
    aria-posinset={i + 1}
    class="item border-rule border-b {selected === taskId(task) ? 'bg-sheet' : ''}"
  >
    <div class="what min-w-0 py-2 pl-3">
      <!-- Where a group says already what it is or for whom, its rows say the other. -->
      <button
        type="button"
        data-id={taskId(task)}
        aria-expanded={selected === taskId(task)}
        class="block w-full text-left text-base leading-tight font-semibold"
        onclick={() => (selected = taskId(task))}
        onfocus={() => (selected = taskId(task))}
        >{#if list.grouping === 'kind' && task.canStart}<bdi>{task.hire}</bdi>{:else}{task.name}{/if}</button
      >
      <p class="text-soft text-xs">
        {#if list.grouping === 'kind' && task.canStart}
          {#if session.may('see hire')}<a class="link" href="/hires/{task.hireId}/checklist">{text.t.hire.checklist}</a> ·{/if}
        {:else}
          {t.for}
          {#if session.may('see hire')}<a class="link text-ink font-semibold" href="/hires/{task.hireId}/checklist"
              ><bdi>{task.hire}</bdi></a
            >{:else}<strong class="text-ink"><bdi>{task.hire}</bdi></strong>{/if} ·
        {/if}
        {[task.job, task.site].filter(Boolean).join(' · ')} · {task.occasion === 'arrival'
          ? t.starts(text.day(task.start))
          : `${occasionWords(task.occasion).coming} ${text.day(task.start)}`}{task.pinned
          ? ` · ${t.acts.pinned(text.day(task.pinned))}`
          : ''}{#if task.meeting}<strong class="text-ink"> · {meetingWords(task.meeting)}</strong>{/if}
        {#if task.isTeams}
          · {text.owner(task.owner, task.ownerName)}{task.takenBy ? `, ${t.acts.takenBy(task.takenBy)}` : ''}
          {#if !task.takenBy || task.isTakenByMe}<button
              type="button"
              class="link"
              aria-label="{task.isTakenByMe ? t.acts.giveBack : t.acts.take}: {task.name}, {task.hire}"
              disabled={acts.busy}
              onclick={() => take(task, !task.isTakenByMe)}>{task.isTakenByMe ? t.acts.giveBack : t.acts.take}</button
            >{/if}
        {/if}
      </p>
      {#if task.note}<p class="border-ochre mt-1 border-l-4 pl-2 text-xs whitespace-pre-line"><bdi>{task.note}</bdi></p>{/if}
      {#if task.steps.length > 0}<TaskSteps hire={task.hireId} task={task.key} steps={task.steps} {acts} />{/if}
      {#if task.automatic}<Automatic hire={task.hireId} task={task.key} automatic={task.automatic} {acts} />{/if}
      {#if selected === taskId(task) && (task.instructions || task.attachments.length > 0)}
        <div class="border-sea bg-sea-tint mt-1.5 max-w-prose border-l-4 px-3 py-1.5 text-xs">
          {#if task.instructions}<Markdown text={task.instructions} />{/if}<TaskFiles
            hire={task.hireId}
            task={task.key}
            files={task.attachments}
          />
        </div>
      {/if}
    </div>
    <div class="when py-2">
      <p class="font-semibold whitespace-nowrap">{due ? t.by(text.day(due)) : t.noBound}</p>
      <p class="text-xs whitespace-nowrap {tone(task)}">
        {#if task.canStart}
          {text.t.state[task.beforeKnown ? 'beforeKnown' : task.state]}{task.slack !== null && task.slack >= 0
            ? `, ${text.t.arrivals.slack(task.slack)}`
            : ''}{task.slack !== null && task.slack < 0 ? `, ${text.t.arrivals.short(-task.slack)}` : ''}
        {:else}{t.from(text.day(task.earliestStart))}{/if}
      </p>
    </div>
    <div class="act py-2 pr-3 text-right">
      {#if !task.completesItself}
        <Button
          key={selected === taskId(task) ? 'd' : undefined}
          aria-label="{words().checklist.act}: {task.name}, {task.hire}"
          onclick={() => tick(task)}>{words().checklist.act}</Button
        >
      {:else if session.may('see record')}
        <a class="link text-xs" href="/hires/{task.hireId}/record">{t.needs.inRecord}</a>
      {:else}
        <span class="text-soft text-xs">{t.needs.byItself}</span>
      {/if}
    </div>
  </div>
{/snippet}

{#if !tasks.data}
  <Waiting error={tasks.error} retry={() => tasks.refetch()} />
{:else}
  <div class="page pb-8">
    <h1 class="pt-5 pb-3 text-2xl leading-tight">
      {t.news(all.filter((k) => k.canStart).length + ofRuns.filter((r) => r.task.canStart).length)}
      {#if late > 0}<span class="text-rust">{t.late(late)}</span>{/if}
    </h1>
    <Away />
    {#if all.length === 0 && ofRuns.length === 0}
      <div class="border-ink max-w-lg border-t pt-4">
        <h2 class="text-lg">{t.emptyTitle}</h2>
        <p class="text-soft mt-1">{t.empty}</p>
      </div>
    {/if}
    {#if all.length > 0}
      <div class="text-soft flex flex-wrap items-center gap-x-6 gap-y-1 text-xs">
        <div role="group" aria-label={t.group.label} class="flex gap-x-4">
          {#each ['date', 'hire', 'kind'] as const as by (by)}
            <button
              type="button"
              aria-pressed={list.grouping === by}
              class="min-h-6 border-b-2 {list.grouping === by ? 'border-ink text-ink font-semibold' : 'hover:text-ink border-transparent'}"
              onclick={() => (list.grouping = by)}>{t.group[by]}</button
            >
          {/each}
        </div>
        <label
          >{t.mine.label}
          <select bind:value={list.whose} class="bg-paper text-ink font-semibold">
            {#each ['all', 'own', 'team'] as const as whose (whose)}<option value={whose}>{t.mine[whose]}</option>{/each}
          </select></label
        >
        <input
          bind:value={list.filter}
          type="search"
          aria-label={t.filter}
          placeholder={t.filter}
          class="border-rule w-36 border-b bg-transparent py-1"
        />
      </div>
      {#if list.fitting.length === 0}<p class="text-soft py-3">{t.noneFit}</p>{/if}
    {/if}
    {#if ofRuns.length > 0}<OwnRunTasks tasks={ofRuns} />{/if}
    {#each list.groups as group (group.id)}
      {#if group.tasks.length > 0}
        {@const byHand = group.tasks.filter((k) => !k.completesItself)}
        <section aria-label={titleOf(group)}>
          <div class="border-ink flex flex-wrap items-end justify-between gap-x-4 border-b pt-4 pb-1.5">
            <h2 class="text-base">
              {titleOf(group)} <span class="text-soft font-sans text-xs font-normal">{group.tasks.length}</span>
            </h2>
            {#if list.grouping === 'kind' && group.id !== 'later' && byHand.length > 1}
              <Button disabled={acts.busy} aria-label="{t.allDone(byHand.length)}: {titleOf(group)}" onclick={() => tickAll(byHand)}
                >{t.allDone(byHand.length)}</Button
              >
            {/if}
          </div>
          <Rows
            bind:this={lists[group.id]}
            role="list"
            items={group.tasks}
            id={taskId}
            height={pageWidth < 640 ? 104 : 58}
            row={item}
            kept={group.tasks.findIndex((k) => taskId(k) === selected)}
          />
        </section>
      {/if}
    {/each}
    {#if list.laterOnes.length > 0}
      <p class="py-3">
        <button type="button" class="link" aria-expanded={list.later} onclick={() => (list.later = !list.later)}
          >{list.later ? t.laterHide : t.laterShow(list.laterOnes.length)}</button
        >
      </p>
    {/if}
    {#if tasks.data.all > all.length}<p class="text-soft py-3">{t.more(tasks.data.all - all.length)}</p>{/if}
  </div>
{/if}

<style>
  .item {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 11rem 6.5rem;
    column-gap: 1rem;
    align-items: start;
  }
  @media (max-width: 40rem) {
    .item {
      grid-template-columns: minmax(0, 1fr) auto;
      grid-template-areas: 'what what' 'when act';
      row-gap: 0;
    }
    .what {
      grid-area: what;
    }
    .when {
      grid-area: when;
      padding-left: 0.75rem;
    }
    .act {
      grid-area: act;
    }
  }
</style>

<script lang="ts">
  import { dueOf } from '$lib/hires/due';
  import Away from '$lib/tasks/Away.svelte';
  import TaskFiles from '$lib/hires/TaskFiles.svelte';
  import Markdown from '$lib/ui/Markdown.svelte';
  import { goto } from '$app/navigation';
  import { api, data, type Api } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { Ticking } from '$lib/hires/ticking.svelte';
  import { keys } from '$lib/keys/keys.svelte';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Rows from '$lib/ui/Rows.svelte';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { createQuery } from '@tanstack/svelte-query';
  import { words } from '$lib/hires/words';
  import { words as taskWords } from '$lib/tasks/words';
  import { taskKeys } from '$lib/tasks/queries';

  type Task = Api['MyTask'];
  const tasks = createQuery(() => ({ queryKey: taskKeys.mine, queryFn: () => data(api.GET('/api/tasks')) }));
  const t = $derived(taskWords());
  let selected = $state<string>();
  let lists = $state<Partial<Record<string, Rows<Task>>>>({});
  let pageWidth = $state(1280);
  const ticking = new Ticking(() => chosen?.hireId ?? '');

  const id = (task: Task) => `${task.hireId}/${task.key}`;
  const all = $derived(tasks.data?.tasks ?? []);
  const groups = $derived([
    { name: t.now, tasks: all.filter((k) => k.canStart) },
    { name: t.later, tasks: all.filter((k) => !k.canStart) }
  ]);
  const chosen = $derived(all.find((k) => id(k) === selected));
  const late = $derived(all.filter((k) => k.state === 'late' && !k.beforeKnown).length);
  const tone = (task: Task) =>
    task.state === 'late' && !task.beforeKnown ? 'text-rust' : task.state === 'atRisk' ? 'text-ochre' : 'text-soft';

  function tick(task: Task) {
    selected = id(task);
    void ticking.tick(task, task.hireId);
  }
  function step(by: number) {
    const at = all.findIndex((k) => id(k) === selected);
    const next = all[at < 0 ? (by > 0 ? 0 : all.length - 1) : Math.min(Math.max(at + by, 0), all.length - 1)];
    if (!next) return;
    selected = id(next);
    const group = groups.find((g) => g.tasks.includes(next))!;
    void lists[group.name]?.focus(group.tasks.indexOf(next), `[data-id="${CSS.escape(id(next))}"]`);
  }

  $effect(() =>
    keys.use(() => [
      { key: 'ArrowDown', label: text.t.keys.down, run: () => step(1) },
      { key: 'ArrowUp', label: text.t.keys.up, run: () => step(-1) },
      ...(chosen ? [{ key: 'd', label: text.t.keys.done, run: () => tick(chosen) }] : []),
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
    aria-setsize={groups[task.canStart ? 0 : 1]!.tasks.length}
    aria-posinset={i + 1}
    class="item border-rule border-b {selected === id(task) ? 'bg-sheet' : ''}"
  >
    <div class="what min-w-0 py-2 pl-3">
      <button
        type="button"
        data-id={id(task)}
        aria-expanded={selected === id(task)}
        class="block w-full text-left text-base leading-tight font-semibold"
        onclick={() => (selected = id(task))}
        onfocus={() => (selected = id(task))}>{task.name}</button
      >
      <p class="text-soft text-xs">
        {t.for}
        {#if session.may('see hire')}<a class="link text-ink font-semibold" href="/hires/{task.hireId}/checklist"><bdi>{task.hire}</bdi></a
          >{:else}<strong class="text-ink"><bdi>{task.hire}</bdi></strong>{/if}
        · {[task.job, task.site].filter(Boolean).join(' · ')} · {t.starts(text.day(task.start))}
      </p>
      {#if selected === id(task) && (task.instructions || task.attachments.length > 0)}
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
      <Button
        key={selected === id(task) ? 'd' : undefined}
        aria-label="{words().checklist.act}: {task.name}, {task.hire}"
        onclick={() => tick(task)}>{words().checklist.act}</Button
      >
    </div>
  </div>
{/snippet}

{#if !tasks.data}
  <Waiting error={tasks.error} retry={() => tasks.refetch()} />
{:else}
  <div class="page pb-8">
    <h1 class="pt-5 pb-3 text-2xl leading-tight">
      {t.news(groups[0]!.tasks.length)}
      {#if late > 0}<span class="text-rust">{t.late(late)}</span>{/if}
    </h1>
    <Away />
    {#if all.length === 0}
      <div class="border-ink max-w-lg border-t pt-4">
        <h2 class="text-lg">{t.emptyTitle}</h2>
        <p class="text-soft mt-1">{t.empty}</p>
      </div>
    {/if}
    {#each groups as group (group.name)}
      {#if group.tasks.length > 0}
        <section aria-label={group.name}>
          <h2 class="border-ink border-b pt-4 pb-1.5 text-base">
            {group.name} <span class="text-soft font-sans text-xs font-normal">{group.tasks.length}</span>
          </h2>
          <Rows
            bind:this={lists[group.name]}
            role="list"
            items={group.tasks}
            {id}
            height={pageWidth < 640 ? 104 : 58}
            row={item}
            kept={group.tasks.findIndex((k) => id(k) === selected)}
          />
        </section>
      {/if}
    {/each}
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

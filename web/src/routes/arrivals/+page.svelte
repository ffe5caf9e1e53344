<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { api, data, type Api } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import Rope from '$lib/drawing/Rope.svelte';
  import DayOneAxis from '$lib/drawing/DayOneAxis.svelte';
  import TimeAxis from '$lib/drawing/TimeAxis.svelte';
  import { TimeScale } from '$lib/drawing/TimeScale';
  import { waitingQuery } from '$lib/hires/queries';
  import { occasionWords, words as occasions } from '$lib/occasions/words';
  import { words as taskWords } from '$lib/tasks/words';
  import { keys } from '$lib/keys/keys.svelte';
  import { dayNumber } from '$lib/text/dates';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Rows from '$lib/ui/Rows.svelte';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { createQuery } from '@tanstack/svelte-query';
  import { type Component } from 'svelte';
  import { filtersOf, groupings, lineId, name, occasionOf, orders, placeOf, type Line, type Row } from './arrivals';
  import { keepLook, readLook } from './arrivalsLook';
  import { ArrivalsView } from './arrivalsView.svelte';
  import HoldUp from './HoldUp.svelte';
  import TakeAlong from './TakeAlong.svelte';
  import { LastLook } from './lastLook';
  import { hireKeys } from '$lib/hires/queries';

  /** Who is listed: those who arrive, change jobs, or leave. */
  const occasion = $derived(occasionOf(page.url.searchParams.get('for')));
  const arrivals = createQuery(() => ({
    queryKey: hireKeys.of(occasion),
    queryFn: () => data(api.GET('/api/arrivals', { params: { query: { occasion } } }))
  }));
  const intake = createQuery(() => waitingQuery(session.may('edit candidate')));
  const fromRecruiting = $derived(intake.data ?? 0);
  const t = $derived(text.t.arrivals);
  const o = $derived(occasionWords(occasion));

  const look = $derived(new LastLook(`${session.user?.email ?? ''}${occasion === 'arrival' ? '' : ` ${occasion}`}`));
  // What one narrowed down and chose among some says nothing of the others.
  const viewOf = (of: Api['Occasion']) =>
    new ArrivalsView(
      () => (arrivals.data?.occasion === of ? arrivals.data : undefined),
      (row) => look.newsOf(row) !== undefined,
      readLook(session.user?.email ?? '')
    );
  const view = $derived(viewOf(occasion));
  $effect(() => keepLook(session.user?.email ?? '', view.look));
  $effect(() => {
    if (arrivals.data?.occasion === occasion) look.see(arrivals.data.hires);
  });
  let finder = $state<HTMLInputElement>();
  let table = $state<Rows<Line>>();
  let pageWidth = $state(1280);
  let chartWidth = $state(560);
  // Fetched when first wanted: opening a hire is not part of the first view.
  let NewHire = $state<Component<{ open: boolean }>>();
  let opening = $state(false);
  let RemindAll = $state<Component<{ open: boolean; rows: Row[] }>>();
  let reminding = $state(false);
  let Move = $state<Component<{ open: boolean; id: string }>>();
  let moving = $state(false);

  const today = $derived(arrivals.data?.today ?? session.today);
  const dayOne = (start: string) => TimeScale.around(start, 6, 5, chartWidth);
  const scale = $derived(new TimeScale(dayNumber(today) - 7, dayNumber(today) + 48, chartWidth));

  async function newHire() {
    NewHire ??= (await import('./new/NewHire.svelte')).default;
    opening = true;
  }
  // Other places lead here to open a hire.
  $effect(() => {
    if (page.url.hash === '#new' && session.may('open hire')) void newHire();
  });
  async function remindAll() {
    RemindAll ??= (await import('./RemindAll.svelte')).default;
    reminding = true;
  }
  async function moveStart() {
    Move ??= (await import('$lib/hires/MoveStart.svelte')).default;
    moving = true;
  }
  function step(by: 1 | -1) {
    const to = view.step(by);
    if (to) void table?.focus(to.at, `[data-id="${to.row.id}"]`);
  }
  const checklist = (row: Row) => `/hires/${row.id}/checklist`;
  const record = (row: Row) => (occasion === 'arrival' ? `/hires/${row.id}/record` : `/people/${row.employmentId}`);

  $effect(() =>
    keys.use(() => [
      ...(session.may('open hire') && occasion === 'arrival' ? [{ key: 'n', label: text.t.keys.newHire, run: () => void newHire() }] : []),
      { key: 'ArrowDown', label: text.t.keys.down, run: () => step(1) },
      { key: 'ArrowUp', label: text.t.keys.up, run: () => step(-1) },
      { key: '/', label: text.t.keys.filter, run: () => finder?.focus() },
      ...(view.chosen
        ? [
            { key: 'Enter', label: text.t.keys.open, run: () => void goto(checklist(view.chosen!)) },
            ...(session.may('see record') ? [{ key: 'e', label: text.t.keys.record, run: () => void goto(record(view.chosen!)) }] : []),
            { key: 'Escape', run: () => (view.selected = undefined) }
          ]
        : [])
    ])
  );
</script>

<svelte:window bind:innerWidth={pageWidth} />
<svelte:head><title>{text.t.places.arrivals} · Fid</title></svelte:head>

{#if !arrivals.data}
  <Waiting error={arrivals.error} retry={() => arrivals.refetch()} />
{:else}
  <div class="page">
    <div class="flex flex-wrap items-center justify-between gap-x-6 gap-y-2 pt-5 pb-2">
      <h1 class="text-2xl leading-tight">
        {o.news(view.all.length)}
        {#if view.all.length > 0}<button
            type="button"
            class="text-left {view.notReady > 0 ? 'text-rust hover:underline' : 'text-sea'}"
            disabled={view.notReady === 0}
            onclick={() => view.toggleNotReady()}>{o.notReady(view.notReady)}</button
          >{/if}
      </h1>
      {#if fromRecruiting > 0}
        <p class="order-last w-full">
          <a class="link text-ochre font-semibold" href="/exchange/intake">{text.t.top.fromRecruiting(fromRecruiting)}</a>
        </p>
      {/if}
      <div class="flex flex-wrap items-center gap-x-6 gap-y-2">
        <nav aria-label={occasions().switch} class="flex flex-wrap gap-x-5">
          {#each arrivals.data.counts as { occasion: one, count } (one)}
            <a
              href={placeOf(one)}
              aria-current={one === occasion ? 'page' : undefined}
              class="border-b-4 py-1 font-semibold {one === occasion ? 'border-sea' : 'text-soft hover:text-ink border-transparent'}"
              >{occasionWords(one).all} {count}</a
            >
          {/each}
        </nav>
        {#if session.may('open hire') && occasion === 'arrival'}<Button look="primary" key="n" onclick={newHire}>{t.newHire}</Button>{/if}
      </div>
    </div>

    {#if view.all.length === 0}
      <div class="border-ink mt-6 max-w-lg border-t pt-4">
        <h2 class="text-lg">{o.emptyTitle}</h2>
        <p class="text-soft mt-1 mb-4">{o.empty}</p>
        {#if session.may('edit list') && occasion === 'arrival'}<p><a class="link font-semibold" href="/setup">{t.setUp}</a></p>{/if}
      </div>
    {:else}
      <div class="flex flex-wrap items-center justify-between gap-x-8 gap-y-2 pb-3 text-xs">
        <div role="group" aria-label={t.filter} class="flex flex-wrap gap-x-5 gap-y-1">
          {#each filtersOf(occasion).filter((f) => f !== 'changed' || view.filter === f || view.count(f) > 0) as f (f)}
            <button
              type="button"
              aria-pressed={view.filter === f}
              class="border-b-2 py-1 {view.filter === f ? 'border-ink font-semibold' : 'text-soft hover:text-ink border-transparent'}"
              onclick={() => (view.filter = f)}>{f === 'notReady' ? o.notInTime : t.filters[f]} {view.count(f)}</button
            >
          {/each}
        </div>
        <div class="text-soft flex flex-wrap items-center gap-x-5 gap-y-1">
          {#if session.may('edit task') && view.rows.some((r) => r.holdUp)}
            <button type="button" class="link" onclick={remindAll}>{taskWords().remindAll.open}</button>
          {/if}
          <input
            bind:this={finder}
            bind:value={view.find}
            type="search"
            aria-label={t.find}
            placeholder={t.find}
            class="border-rule w-32 border-b bg-transparent py-1"
            onkeydown={(e) => {
              if (e.key === 'Escape') {
                view.find = '';
                e.currentTarget.blur();
              } else if (e.key === 'ArrowDown' || e.key === 'Enter') {
                e.preventDefault();
                e.stopPropagation();
                view.selected = undefined;
                step(1);
              }
            }}
          />
          <label
            >{t.site}
            <select bind:value={view.site} class="bg-paper text-ink font-semibold"
              ><option value="">{t.allSites}</option>{#each view.sites as [code, label] (code)}<option value={code}>{label}</option
                >{/each}</select
            ></label
          >
          <label
            >{t.grouping}
            <select bind:value={view.grouping} class="bg-paper text-ink font-semibold"
              >{#each groupings as g (g)}<option value={g}>{t.groupings[g]}</option>{/each}</select
            ></label
          >
          <label
            >{t.axis}
            <select
              bind:value={() => (view.aligned ? 'dayOne' : 'calendar'), (to) => (view.aligned = to === 'dayOne')}
              class="bg-paper text-ink font-semibold"
              >{#each ['calendar', 'dayOne'] as const as a (a)}<option value={a}>{t.axes[a]}</option>{/each}</select
            ></label
          >
          <label
            >{t.order}
            <select bind:value={view.by} class="bg-paper text-ink font-semibold"
              >{#each orders as o (o)}<option value={o}>{t.orders[o]}</option>{/each}</select
            ></label
          >
          <TakeAlong {occasion} {today} />
        </div>
      </div>

      <div role="grid" aria-label={text.t.places.arrivals} aria-rowcount={view.lines.length + 1} class="border-ink border-t">
        <div role="row" class="row bg-paper sticky top-0 z-10">
          <span role="columnheader" class="sr-only">{o.columns.name}</span>
          <span role="columnheader" class="sr-only">{o.columns.start}</span>
          <div role="columnheader" class="plan" bind:clientWidth={chartWidth}>
            <span class="sr-only">{t.columns.plan}</span>{#if view.aligned}<DayOneAxis
                scale={dayOne(today)}
                dayOne={today}
              />{:else}<TimeAxis {scale} {today} />{/if}
          </div>
          <span role="columnheader" class="sr-only">{o.columns.ready}</span>
          <span role="columnheader" class="sr-only">{t.columns.holdUp}</span>
        </div>
        {#snippet hire(row: Row, i: number)}
          {@const news = look.newsOf(row)}
          <!-- svelte-ignore a11y_click_events_have_key_events (the keys of the page do the same) -->
          <div
            role="row"
            aria-rowindex={i + 2}
            data-id={row.id}
            tabindex={view.isEntry(row) ? 0 : -1}
            aria-selected={view.selected === row.id}
            class="row hire border-b {view.selected === row.id ? 'bg-sheet outline-sea outline-2 -outline-offset-2' : 'border-rule'}"
            onfocus={() => (view.selected = row.id)}
            onclick={() => (view.selected = row.id)}
            ondblclick={() => goto(checklist(row))}
          >
            <div role="gridcell" class="who min-w-0 py-2 pl-3">
              <a href={checklist(row)} tabindex="-1" class="block truncate text-base font-semibold hover:underline"
                ><bdi>{name(row)}</bdi></a
              >
              <p class="narrow text-soft truncate text-xs">
                {#if news}<span class="text-sea font-semibold">{t.changed[news]}</span>&nbsp;·&nbsp;
                {/if}{row.job ?? ''}{row.kind ? `, ${row.kind}` : ''} · {row.site ?? ''}
              </p>
            </div>
            <div role="gridcell" class="when py-2 text-right">
              <p class="font-semibold whitespace-nowrap">{text.day(row.start)}</p>
              <p class="text-soft text-xs">{occasion === 'arrival' ? text.untilStart(row.start) : text.distance(row.start)}</p>
            </div>
            <div role="gridcell" class="plan overflow-hidden">
              <Rope
                scale={view.aligned ? dayOne(row.start) : scale}
                {today}
                rope={row.rope}
                start={row.start}
                stages={arrivals.data?.stages ?? []}
                feasible={row.feasible}
                label={o.ropeLabel(name(row), row.readiness.done, row.readiness.of, row.rope.frayed)}
              />
            </div>
            <div role="gridcell" class="ready py-2 text-right">
              <p class="text-soft text-xs">
                <span class="text-ink text-lg font-bold">{row.readiness.done}</span>
                {t.of(row.readiness.done, row.readiness.of).split(' ').slice(1).join(' ')}
              </p>
              <p class="text-soft text-xs">{o.inTime}</p>
            </div>
            <div role="gridcell" class="hold min-w-0 py-2 pr-2"><HoldUp {row} /></div>
          </div>
        {/snippet}
        {#snippet line(each: Line, i: number)}
          {#if each.row}
            {@render hire(each.row, i)}
          {:else}
            <div role="row" aria-rowindex={i + 2} class="border-ink border-b pt-4 pb-1">
              <div role="gridcell">
                <h2 class="pl-3 text-base">
                  {view.grouping === 'week' && each.heading.of ? t.weekOf(text.day(each.heading.of)) : (each.heading.of ?? t.noneOf)}
                  <span class="text-soft font-sans text-xs font-normal">{each.heading.count}</span>
                </h2>
              </div>
            </div>
          {/if}
        {/snippet}
        <Rows
          bind:this={table}
          role="rowgroup"
          items={view.lines}
          id={lineId}
          height={pageWidth < 960 ? 165 : 64}
          row={line}
          kept={view.at}
        />
        {#if view.rows.length === 0}
          <div role="row">
            <div role="gridcell" class="text-soft py-6">
              {t.noneLeft}
              <button type="button" class="link" onclick={() => view.showAll()}>{t.showAll}</button>
            </div>
          </div>
        {/if}
      </div>
    {/if}
  </div>
  {#if view.chosen}
    <!-- Fetched when somebody first selects a row. -->
    {#await import('./HireSheet.svelte') then { default: HireSheet }}
      <HireSheet {occasion} row={view.chosen} checklist={checklist(view.chosen)} record={record(view.chosen)} {moveStart} />
    {/await}
  {/if}
  {#if NewHire}<NewHire bind:open={opening} />{/if}
  {#if RemindAll}<RemindAll bind:open={reminding} rows={view.rows} />{/if}
  {#if Move && view.selected}
    {#key view.selected}<Move bind:open={moving} id={view.selected} />{/key}
  {/if}
{/if}

<style>
  .row {
    display: grid;
    grid-template-columns: minmax(9rem, 13rem) 6.5rem minmax(8rem, 1fr) 5rem minmax(9rem, 13rem);
    grid-template-areas: 'who when plan ready hold';
    column-gap: 0.75rem;
    align-items: start;
  }
  /* The dates stay at the top. */
  .hire {
    scroll-margin-top: 2rem;
  }
  .who {
    grid-area: who;
  }
  .when {
    grid-area: when;
  }
  .plan {
    grid-area: plan;
  }
  .ready {
    grid-area: ready;
  }
  .hold {
    grid-area: hold;
  }
  @media (max-width: 60rem) {
    .row {
      grid-template-columns: minmax(0, 1fr) auto;
      grid-template-areas: 'who when' 'plan plan' 'hold ready';
    }
    .hold {
      padding-left: 0.75rem;
    }
  }
</style>

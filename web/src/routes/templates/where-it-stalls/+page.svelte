<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { goto } from '$app/navigation';
  import Spread from '$lib/drawing/Spread.svelte';
  import { keys } from '$lib/keys/keys.svelte';
  import Behind from '$lib/stalls/Behind.svelte';
  import { stallsQuery, type By } from '$lib/stalls/queries';
  import { lastDay, stepOf, tenths, tone, worst } from '$lib/stalls/stallRow';
  import StallSheet from '$lib/stalls/StallSheet.svelte';
  import { words } from '$lib/stalls/words';
  import { text } from '$lib/text/index.svelte';
  import DateField from '$lib/ui/DateField.svelte';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
  import { scaleLinear } from 'd3-scale';

  // Which promise is broken most, with whom, and what should the template say instead?
  type Row = Api['StallRow'];
  const w = $derived(words());
  let from = $state<string | null>(null);
  let to = $state<string | null>(null);
  let by = $state<By>('task');
  let selected = $state<string>();
  let behind = $state(false);
  let width = $state(400);
  let table = $state<HTMLElement>();
  const stalls = createQuery(() => ({ ...stallsQuery({ from, to }), placeholderData: keepPreviousData }));
  const rows = $derived(
    (by === 'task' ? stalls.data?.tasks : by === 'owner' ? stalls.data?.owners : stalls.data?.templates)?.filter(
      (r) => r.count + r.open > 0
    ) ?? []
  );
  const chosen = $derived(rows.find((r) => r.key === selected));
  const worstTask = $derived(worst(stalls.data?.tasks ?? []));
  const last = $derived(lastDay(rows));
  const x = $derived(scaleLinear().domain([0, last]).range([0, width]));
  const step = $derived(stepOf(last));
  const lines = $derived(Array.from({ length: Math.floor(last / step) + 1 }, (_, i) => i * step));
  const nameOf = (row: Row) => row.name ?? text.owner(row.owner ?? row.key, row.ownerName);
  const number = (n: number | null) => (n === null ? '' : text.number(n));
  const percent = (n: number | null) => (n === null ? '' : w.share(text.number(Math.round(n * 100))));

  function select(row: Row) {
    selected = row.key;
  }
  function move(by: number) {
    const at = rows.findIndex((r) => r.key === selected);
    const next = rows[Math.min(Math.max(at + by, 0), rows.length - 1)];
    if (!next) return;
    select(next);
    table?.querySelector<HTMLElement>(`[data-key="${CSS.escape(next.key)}"]`)?.focus();
  }
  $effect(() =>
    keys.use(() => [
      { key: 'ArrowDown', label: text.t.keys.down, run: () => move(1) },
      { key: 'ArrowUp', label: text.t.keys.up, run: () => move(-1) },
      ...(chosen ? [{ key: 'Enter', label: w.behind(chosen.count + chosen.open), run: () => (behind = true) }] : []),
      { key: 'Escape', run: () => (selected ? (selected = undefined) : void goto('/templates')) }
    ])
  );
</script>

<svelte:head><title>{w.title} · Fid</title></svelte:head>

{#if !stalls.data}
  <Waiting error={stalls.error} retry={() => stalls.refetch()} />
{:else}
  {@const shown = stalls.data}
  <div class="page pb-8">
    <h1 class="pt-5 text-2xl leading-tight">
      {#if shown.tasks.every((t) => t.count === 0)}{w.none}
      {:else if worstTask}
        {w.holdsUp(nameOf(worstTask), tenths(worstTask.heldUpShare!))}
        {#if worstTask.work !== null && worstTask.median! > worstTask.work}
          <span class="text-ochre">{w.takes(number(worstTask.median), worstTask.work)}</span>
        {/if}
      {:else}{w.nothing}{/if}
    </h1>
    <div class="flex flex-wrap items-end justify-between gap-x-8">
      <div role="group" aria-label={w.by.label} class="text-soft flex gap-x-5 py-2">
        {#each ['task', 'owner', 'template'] as const as one (one)}
          <button
            type="button"
            aria-pressed={by === one}
            class="min-h-6 border-b-2 {by === one ? 'border-ink text-ink font-semibold' : 'hover:text-ink border-transparent'}"
            onclick={() => ([by, selected] = [one, undefined])}>{w.by[one]}</button
          >
        {/each}
      </div>
      <div class="flex flex-wrap items-end gap-x-4">
        <div class="w-40"><DateField id="stalls-from" label={w.from} bind:value={() => from ?? shown.from, (day) => (from = day)} /></div>
        <div class="w-40"><DateField id="stalls-to" label={w.to} bind:value={() => to ?? shown.to, (day) => (to = day)} /></div>
        <p class="text-soft pb-5 text-xs">{w.hires(shown.hires)}</p>
      </div>
    </div>

    <div bind:this={table} role="grid" aria-label={w.title} class="border-ink border-t">
      <div role="row" class="stall text-soft border-ink border-b py-1.5 text-xs">
        <span role="columnheader" class="name pr-1 text-right"><span class="sr-only">{w.columns.what}, </span>{w.columns.days}</span>
        <span role="columnheader" class="drawn relative h-4" bind:clientWidth={width}>
          <span class="sr-only">{w.title}</span>
          {#each lines as day (day)}<span class="absolute -translate-x-1/2" style:left="{x(day)}px" aria-hidden="true">{day}</span>{/each}
        </span>
        <span role="columnheader" class="half text-right">{w.columns.half}</span>
        <span role="columnheader" class="nine text-right">{w.columns.nine}</span>
        <span role="columnheader" class="late text-right">{w.columns.late}</span>
        <span role="columnheader" class="held text-right">{w.columns.heldUp}</span>
        <span role="columnheader" class="said pr-3 text-right">{by === 'task' ? w.columns.template : ''}</span>
      </div>
      {#each rows as row, i (row.key)}
        <!-- svelte-ignore a11y_click_events_have_key_events (the keys of the page do the same) -->
        <div
          role="row"
          data-key={row.key}
          tabindex={selected === row.key || (!chosen && i === 0) ? 0 : -1}
          aria-selected={selected === row.key}
          class="stall border-rule border-b py-1.5 {selected === row.key ? 'bg-sheet outline-sea outline-2 -outline-offset-2' : ''}"
          onfocus={() => select(row)}
          onclick={() => select(row)}
        >
          <div role="gridcell" class="name min-w-0 pl-3">
            <p class="truncate font-semibold">{nameOf(row)}</p>
            <p class="text-soft truncate text-xs">
              {by === 'task' && row.owner ? `${text.owner(row.owner, row.ownerName)} · ` : ''}{w.count(row.count, row.open)}
            </p>
          </div>
          <div role="gridcell" class="drawn relative">
            {#each lines as day (day)}
              <span class="bg-rule absolute -inset-y-1.5 w-px" style:left="{x(day)}px" aria-hidden="true"></span>
            {/each}
            {#if row.median !== null}
              <div class="relative">
                <Spread
                  p10={row.p10!}
                  p25={row.p25!}
                  median={row.median}
                  p75={row.p75!}
                  p90={row.p90!}
                  promised={row.work}
                  {x}
                  {width}
                  tone={tone(row)}
                  label={w.spread(number(row.p10), number(row.p25), number(row.median), number(row.p75), number(row.p90), row.work)}
                />
              </div>
            {/if}
          </div>
          <div role="gridcell" class="half text-right tabular-nums">{number(row.median)}</div>
          <div role="gridcell" class="nine text-right tabular-nums">{number(row.p90)}</div>
          <div role="gridcell" class="late text-right tabular-nums">{percent(row.lateShare)}</div>
          <div role="gridcell" class="held text-right font-semibold tabular-nums">{percent(row.heldUpShare)}</div>
          <div role="gridcell" class="said pr-3 text-right font-semibold tabular-nums">
            {row.work !== null && row.suggestedWork !== null ? w.change(row.work, row.suggestedWork) : ''}
          </div>
        </div>
      {:else}
        <p class="text-soft py-6 pl-3">{w.none}</p>
      {/each}
    </div>
  </div>
  {#if chosen}
    {#key chosen.key}<StallSheet row={chosen} name={nameOf(chosen)} onbehind={() => (behind = true)} />{/key}
    {#if behind}<Behind bind:open={behind} {by} key={chosen.key} name={nameOf(chosen)} span={{ from, to }} />{/if}
  {/if}
{/if}

<style>
  .stall {
    display: grid;
    grid-template-columns: minmax(11rem, 17rem) minmax(10rem, 1fr) 5.5rem 4rem 4rem 5rem 7.5rem;
    grid-template-areas: 'name drawn half nine late held said';
    column-gap: 1rem;
    align-items: center;
  }
  .name {
    grid-area: name;
  }
  .drawn {
    grid-area: drawn;
  }
  .half {
    grid-area: half;
  }
  .nine {
    grid-area: nine;
  }
  .late {
    grid-area: late;
  }
  .held {
    grid-area: held;
  }
  .said {
    grid-area: said;
  }
  @media (max-width: 60rem) {
    .stall {
      grid-template-columns: repeat(5, minmax(0, 1fr));
      grid-template-areas: 'name name name name name' 'drawn drawn drawn drawn drawn' 'half nine late held said';
      row-gap: 0.25rem;
      padding-left: 0.75rem;
      padding-right: 0.75rem;
    }
    .name,
    .said {
      padding: 0;
    }
  }
</style>

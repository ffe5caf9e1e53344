<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import Rows from '$lib/ui/Rows.svelte';
  import { kindsOf, type Kind } from './kinds';
  import { words } from './words';

  /** Person by person, what they are paid now and from then on, and what decided. */
  let { preview }: { preview: Api['RevisionPreviewResponse'] } = $props();
  const w = $derived(words());
  type Line = Api['RevisionLine'];
  let chosen = $state<Kind>('all');
  // What is otherwise than the percentage says is what is looked at.
  const kinds = $derived(
    kindsOf(preview.lines)
      .map(({ kind, lines }) => ({ kind, lines, label: w.kinds[kind] }))
      .filter((k) => k.kind === 'all' || k.lines.length > 0)
  );
  const shown = $derived(kinds.find((k) => k.kind === chosen) ?? kinds[0]!);
  const because = (line: Line) =>
    [
      line.limit === 'bandMaximum' && line.after === line.before ? w.stays : w.limits[line.limit],
      line.enteredAhead ? w.ahead(text.day(line.enteredAhead)) : ''
    ].filter(Boolean);
  const reasons = $derived(
    (Object.keys(w.leftOutWhy) as Api['LeftOutReason'][])
      .map((why) => ({ why, people: preview.leftOut.filter((p) => p.why === why) }))
      .filter((r) => r.people.length > 0)
  );
  const named = 20;
</script>

{#if kinds.length > 1}
  <div role="group" aria-label={w.columns.because} class="text-soft flex flex-wrap gap-x-5 py-2">
    {#each kinds as one (one.kind)}
      <button
        type="button"
        aria-pressed={one === shown}
        class="min-h-6 border-b-2 {one === shown ? 'border-ink text-ink font-semibold' : 'hover:text-ink border-transparent'}"
        onclick={() => (chosen = one.kind)}>{one.label} {text.number(one.lines.length)}</button
      >
    {/each}
  </div>
{/if}
<div role="table" aria-label={w.title} class="border-ink border-t">
  <div role="rowgroup">
    <div role="row" class="revision-line text-soft border-ink border-b py-1.5 text-xs">
      <span role="columnheader" class="who">{w.columns.who}</span>
      <span role="columnheader" class="text-right">{w.columns.before}</span>
      <span role="columnheader" class="text-right">{w.columns.after}</span>
      <span role="columnheader" class="more text-right">{w.columns.more}</span>
      <span role="columnheader" class="year text-right">{w.columns.year}</span>
      <span role="columnheader" class="because">{w.columns.because}</span>
    </div>
  </div>
  <Rows items={shown.lines} id={(line) => line.employmentId} height={45} role="rowgroup">
    {#snippet row(line: Line)}
      {@const raised = line.after > line.before}
      <div role="row" class="revision-line border-rule border-b py-1.5 {raised ? '' : 'text-soft'}">
        <span role="cell" class="who min-w-0">
          <a class="link block truncate font-semibold" href="/people/{line.employmentId}#section-pay"><bdi>{line.name}</bdi></a>
          <span class="text-soft block truncate text-xs">{line.job ?? ''}</span>
        </span>
        <span role="cell" class="text-right tabular-nums">{text.number(line.before, 2)}</span>
        <span role="cell" class="text-right tabular-nums">
          <span class="font-semibold">{text.number(line.after, 2)}</span>
          <span class="text-soft block text-xs">{w.per[line.per]}</span>
        </span>
        <span role="cell" class="more text-right tabular-nums">
          {#if raised}{text.number(line.after - line.before, 2)}
            <span class="text-soft block text-xs">{text.number((line.after / line.before - 1) * 100, 1)} %</span>{/if}
        </span>
        <span role="cell" class="year text-right tabular-nums">{raised ? text.number(line.annualAfter - line.annualBefore, 2) : ''}</span>
        <span role="cell" class="because text-xs">
          {#each because(line) as one (one)}<span class="block {line.limit === 'bandMaximum' ? 'text-ochre font-semibold' : ''}">{one}</span
            >{/each}
        </span>
      </div>
    {/snippet}
  </Rows>
</div>
{#if preview.leftOut.length > 0}
  <section class="pt-5">
    <h2 class="text-lg">{w.leftOut(preview.leftOut.length)}</h2>
    {#each reasons as { why, people } (why)}
      <p class="pt-1">
        <span class="text-soft">{w.leftOutWhy[why]}:</span>
        {#each people.slice(0, named) as person (person.employmentId)}
          <a class="link mr-3" href="/people/{person.employmentId}#section-pay"><bdi>{person.name}</bdi></a>
        {/each}
        {#if people.length > named}<span class="text-soft">+ {people.length - named}</span>{/if}
      </p>
    {/each}
  </section>
{/if}

<style>
  .revision-line {
    display: grid;
    grid-template-columns: minmax(12rem, 1fr) 6rem 6rem 6rem 7rem minmax(10rem, 16rem);
    column-gap: 1.25rem;
    align-items: center;
  }
  @media (max-width: 60rem) {
    .revision-line {
      grid-template-columns: minmax(0, 1fr) 5.5rem 5.5rem;
      row-gap: 0.15rem;
    }
    .revision-line > .year {
      display: none;
    }
    .revision-line > .more {
      grid-column: 3;
    }
    .revision-line > .because {
      grid-column: 1 / 3;
      grid-row: 2;
    }
    .revision-line > .because:empty {
      display: none;
    }
  }
</style>

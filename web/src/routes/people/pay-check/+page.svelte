<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { api, data, type Api } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import PayRunAxis from '$lib/drawing/PayRunAxis.svelte';
  import { keys } from '$lib/keys/keys.svelte';
  import PayCheckSheet from '$lib/payCheck/PayCheckSheet.svelte';
  import PayCheckTotals from '$lib/payCheck/PayCheckTotals.svelte';
  import PayLine from '$lib/payCheck/PayLine.svelte';
  import { isChecked, isClean, seen } from '$lib/payCheck/payCheckLine';
  import { payCheckKeys, runQuery } from '$lib/payCheck/queries';
  import { words } from '$lib/payCheck/words';
  import RunChecklist from '$lib/runChecklist/RunChecklist.svelte';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import DateField from '$lib/ui/DateField.svelte';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { done, failed } from '$lib/ui/toast';
  import { createQuery, keepPreviousData, useQueryClient } from '@tanstack/svelte-query';

  // Who of those paid anew or otherwise can be paid as they stand, and what must be put right before the cut-off?
  type Line = Api['PayCheckLine'];
  const w = $derived(words());
  const client = useQueryClient();
  // The run stands in the address, so that it can be sent to somebody and gone back to.
  const group = $derived(page.url.searchParams.get('group'));
  const on = $derived(page.url.searchParams.get('on'));
  let selected = $state<string>();
  let busy = $state(false);
  let table = $state<HTMLElement>();

  const run = createQuery(() => ({ ...runQuery({ group, on }), placeholderData: keepPreviousData }));
  const lines = $derived(run.data?.lines ?? []);
  const chosen = $derived(lines.find((l) => l.employmentId === selected));
  const unchecked = $derived(lines.filter((l) => !isChecked(l)));
  const stopped = $derived(lines.filter((l) => l.findings.some((f) => f.stops)));
  const clean = $derived(lines.filter(isClean));
  const mayCheck = $derived(session.may('edit pay') && session.viewedBy === null);

  function show(code: string, day: string | null) {
    selected = undefined;
    const asked = new URLSearchParams({ group: code, ...(day !== null && { on: day }) });
    void goto(`/people/pay-check?${asked}`, { keepFocus: true, noScroll: true });
  }

  function tick(them: Line[], checked: boolean) {
    if (run.data?.payGroup && run.data.period) void check({ payGroup: run.data.payGroup, period: run.data.period.start }, them, checked);
  }

  // Which run is meant is said by the act: whoever takes it back may have gone on to another one.
  async function check(of: { payGroup: string; period: string }, them: Line[], checked: boolean) {
    if (busy) return;
    busy = true;
    try {
      await data(api.POST('/api/pay-check', { body: { ...of, people: seen(them), checked } }));
      const undo = { label: w.undo, run: () => void check(of, them, false) };
      done(checked ? w.ticked(them.length) : w.unticked, checked ? undo : undefined);
    } catch (e) {
      failed(text.failure(e));
    }
    // What was refused because it had changed is shown as it is now.
    await client.invalidateQueries({ queryKey: payCheckKeys.all });
    busy = false;
  }
  function move(by: number) {
    const at = lines.findIndex((l) => l.employmentId === selected);
    const next = lines[Math.min(Math.max(at + by, 0), lines.length - 1)];
    if (!next) return;
    selected = next.employmentId;
    table?.querySelector<HTMLElement>(`[data-key="${CSS.escape(next.employmentId)}"]`)?.focus();
  }
  $effect(() =>
    keys.use(() => [
      { key: 'ArrowDown', label: text.t.keys.down, run: () => move(1) },
      { key: 'ArrowUp', label: text.t.keys.up, run: () => move(-1) },
      ...(chosen && mayCheck ? [{ key: 'd', label: w.tick, run: () => tick([chosen], !isChecked(chosen)) }] : []),
      ...(chosen ? [{ key: 'Enter', label: w.openRecord, run: () => void goto(`/people/${chosen.employmentId}#section-pay`) }] : []),
      { key: 'Escape', run: () => (selected ? (selected = undefined) : void goto('/people')) }
    ])
  );
</script>

<svelte:head><title>{w.title} · Fid</title></svelte:head>

{#if !run.data}
  <Waiting error={run.error} retry={() => run.refetch()} />
{:else}
  {@const shown = run.data}
  <div class="page pb-8">
    <div class="flex flex-wrap items-center justify-between gap-x-6 gap-y-2 pt-5">
      <h1 class="text-2xl leading-tight">
        {#if !shown.period}{w.noGroups}
        {:else if lines.length === 0}{w.nobody}
        {:else if unchecked.length === 0}{w.allChecked(lines.length)}
        {:else}{w.toCheck(unchecked.length, text.day(shown.period.cutOff))}{/if}
        {#if stopped.length > 0}<span class="text-rust">{w.stopped(stopped.length)}</span>{/if}
      </h1>
      {#if shown.period && session.may('export people')}
        {@const sheet = `/api/pay-check/${shown.payGroup}/${shown.period.start}/sheet`}
        <p class="text-xs">
          <a class="link font-semibold" download href="{sheet}.xlsx?language={text.language}">{w.sheet}</a>
          <a class="link ml-3" download href="{sheet}.csv?language={text.language}">{w.csv}</a>
        </p>
      {/if}
    </div>
    {#if !shown.period || !shown.payGroup}
      {#if session.may('edit list')}<p class="py-4"><a class="link" href="/lists/payGroups">{w.toLists}</a></p>{/if}
    {:else}
      {@const { period, payGroup } = shown}
      <div class="flex flex-wrap items-end justify-between gap-x-8">
        <div role="group" aria-label={w.groups} class="text-soft flex flex-wrap gap-x-5 py-2">
          {#each shown.groups as one (one.code)}
            <button
              type="button"
              aria-pressed={one.code === payGroup}
              aria-label={w.group(one.name, one.toCheck)}
              class="min-h-6 border-b-2 {one.code === payGroup ? 'border-ink text-ink font-semibold' : 'hover:text-ink border-transparent'}"
              onclick={() => show(one.code, null)}>{one.name} <span class={one.stopped > 0 ? 'text-rust' : ''}>{one.toCheck}</span></button
            >
          {/each}
        </div>
        <div class="w-44">
          <DateField id="pay-check-on" label={w.period} bind:value={() => on ?? period.start, (day) => show(payGroup, day)} />
        </div>
      </div>
      <PayRunAxis
        last={shown.last}
        {period}
        next={shown.next}
        label={w.axis(text.day(period.start), text.day(period.end), text.day(period.cutOff), text.day(period.payDate))}
        words={{ period: w.thisPeriod, cutOff: w.cutOff(text.day(period.cutOff)), paid: w.paid(text.day(period.payDate)) }}
      />
      <RunChecklist checklist={shown.checklist} templates={shown.templates} run={{ payGroup, period: period.start }} mayEdit={mayCheck} />
      {#if mayCheck && clean.length > 1}
        <p class="py-2"><Button disabled={busy} onclick={() => tick(clean, true)}>{w.checkClean(clean.length)}</Button></p>
      {/if}
      <div bind:this={table} role="grid" aria-label={w.title} class="border-ink border-t">
        <div role="row" class="pay-line text-soft border-ink border-b py-1.5 text-xs">
          <span role="columnheader" class="who pl-3">{w.columns.who}</span>
          <span role="columnheader" class="against">{w.columns.against}</span>
          <span role="columnheader" class="last text-right">{w.columns.last}</span>
          <span role="columnheader" class="now text-right">{w.columns.now}</span>
          <span role="columnheader" class="difference text-right">{w.columns.difference}</span>
          <span role="columnheader" class="checked">{w.columns.checked}</span>
        </div>
        {#each lines as line, i (line.employmentId)}
          <PayLine
            {line}
            selected={selected === line.employmentId}
            first={!chosen && i === 0}
            {mayCheck}
            {busy}
            onselect={() => (selected = line.employmentId)}
            oncheck={() => tick([line], !isChecked(line))}
          />
        {/each}
      </div>
      {#if lines.some((l) => l.amounts)}
        <PayCheckTotals
          totals={shown.totals}
          people={lines.filter((l) => l.amounts).length}
          group={shown.groups.find((g) => g.code === payGroup)?.name ?? payGroup}
        />
      {/if}
    {/if}
    {#if shown.ungrouped.length > 0}
      <p class="text-rust pt-6">
        {w.ungrouped(shown.ungrouped.length)}
        {#each shown.ungrouped as person (person.employmentId)}
          <a class="link mr-3" href="/people/{person.employmentId}#section-pay"><bdi>{person.name}</bdi></a>
        {/each}
      </p>
    {/if}
  </div>
  {#if chosen && shown.payGroup && shown.period}
    {#key chosen.employmentId}
      <PayCheckSheet
        line={chosen}
        group={shown.payGroup}
        period={shown.period.start}
        {mayCheck}
        {busy}
        oncheck={() => tick([chosen], !isChecked(chosen))}
      />
    {/key}
  {/if}
{/if}

<style>
  /* The lines are parts of their own, on the columns of the head. */
  :global(.pay-line) {
    display: grid;
    grid-template-columns: minmax(11rem, 17rem) minmax(10rem, 1fr) 6rem 6rem 6.5rem 11rem;
    grid-template-areas: 'who against last now difference checked';
    column-gap: 1rem;
    align-items: center;
  }
  :global(.pay-line > .who) {
    grid-area: who;
  }
  :global(.pay-line > .against) {
    grid-area: against;
  }
  :global(.pay-line > .last) {
    grid-area: last;
  }
  :global(.pay-line > .now) {
    grid-area: now;
  }
  :global(.pay-line > .difference) {
    grid-area: difference;
  }
  :global(.pay-line > .checked) {
    grid-area: checked;
  }
  :global(.pay-line .narrow-label) {
    display: none;
  }
  @media (max-width: 60rem) {
    :global(.pay-line) {
      grid-template-columns: repeat(3, minmax(0, 1fr));
      grid-template-areas: 'who who who' 'against against against' 'last now difference' 'checked checked checked';
      row-gap: 0.25rem;
    }
    :global(.pay-line > .who, .pay-line > .against, .pay-line > .checked) {
      padding-left: 0.75rem;
    }
    :global(.pay-line > .last, .pay-line > .now, .pay-line > .difference) {
      padding-left: 0.75rem;
      text-align: left;
    }
    :global(.pay-line .narrow-label) {
      display: block;
      font-size: 0.75rem;
    }
    :global(.pay-line:first-child) {
      display: none;
    }
  }
</style>

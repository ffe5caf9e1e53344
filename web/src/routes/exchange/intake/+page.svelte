<script lang="ts">
  import { goto } from '$app/navigation';
  import { api, ApiProblem, data, type Api } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { fieldTitle } from '$lib/text/fieldLabels.svelte';
  import MoveStart from '$lib/hires/MoveStart.svelte';
  import { aboutKnown, fullName, whyKnown } from '$lib/hires/known';
  import { words } from '$lib/hires/words';
  import { words as occasions } from '$lib/occasions/words';
  import { keys } from '$lib/keys/keys.svelte';
  import { nameOf, optionsQuery } from '$lib/lists/queries';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { done, failed } from '$lib/ui/toast';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { draft } from '../../arrivals/new/draft.svelte';
  import { hireKeys } from '$lib/hires/queries';
  import { templateKeys } from '$lib/templates/queries';

  /** The tray of candidates from recruiting, what the feed has come to say otherwise, its pulls, and what other systems are told. */
  const client = useQueryClient();
  const w = $derived(words());
  const k = $derived(w.opening.known);
  const intake = createQuery(() => ({ queryKey: hireKeys.intake, queryFn: () => data(api.GET('/api/intake')) }));
  const templates = createQuery(() => ({ queryKey: templateKeys.all, queryFn: () => data(api.GET('/api/templates')) }));
  const options = optionsQuery();
  let busy = $state(false);
  let moving = $state<{ hire: string; to: string | null; open: boolean }>();
  const said = (field: string, what: string | null) => (what === null ? w.merge.nothing : field === 'start_date' ? text.day(what) : what);
  $effect(() => {
    // A start that was moved is settled.
    if (moving && !moving.open) void client.invalidateQueries({ queryKey: hireKeys.intake });
  });
  let declining = $state<string>();
  let why = $state('');
  let typedAddress = $state<string>();
  const address = $derived(typedAddress ?? intake.data?.feed ?? '');
  let wrongAddress = $state('');
  const waiting = $derived((intake.data?.candidates ?? []).filter((c) => c.state === 'waiting'));
  const rest = $derived((intake.data?.candidates ?? []).filter((c) => c.state !== 'waiting'));
  const changed = $derived(rest.filter((c) => c.proposals.length > 0));
  const name = (c: Api['CandidateResponse']) => [c.candidate.givenName, c.candidate.familyName].filter(Boolean).join(' ') || c.candidate.id;

  async function act(run: () => Promise<unknown>) {
    if (busy) return;
    busy = true;
    try {
      await run();
      await client.invalidateQueries({ queryKey: hireKeys.intake });
    } catch (e) {
      failed(e instanceof ApiProblem && e.errors[0] ? (text.problem(e.errors[0]) ?? text.failure(e)) : text.failure(e));
    } finally {
      busy = false;
    }
  }
  const pull = () =>
    act(async () => {
      const run = await data(api.POST('/api/intake/pull'));
      if (run.succeeded) done(w.intake.pulled(run.arrived, run.changed));
      else failed(`${w.intake.failed} ${run.trouble.at(-1) ?? ''}`);
    });
  // Who is being typed already is not given up unasked.
  async function take(c: Api['CandidateResponse'], person?: Api['KnownPerson']) {
    if (draft.candidate !== c.id || person) {
      if (draft.count > 0 && draft.candidate !== c.id && !confirm(w.intake.instead)) return;
      draft.from(c);
    }
    if (person) draft.isOf(person);
    await goto('/arrivals#new');
  }
  async function keepAddress() {
    wrongAddress = '';
    try {
      await data(api.PUT('/api/intake/feed', { body: { address: address.trim() || null } }));
      typedAddress = undefined;
      await client.invalidateQueries({ queryKey: hireKeys.intake });
    } catch (e) {
      wrongAddress = e instanceof ApiProblem && e.errors[0] ? (text.problem(e.errors[0]) ?? '') : text.failure(e);
    }
  }
  const settle = (c: Api['CandidateResponse'], field: string, takes: boolean) =>
    act(() =>
      data(
        api.POST('/api/intake/{id}/proposals', {
          params: { path: { id: c.id } },
          body: { take: takes ? [field] : [], leave: takes ? [] : [field] }
        })
      )
    );
  $effect(() => keys.use(() => [{ key: 'Escape', run: () => void goto('/exchange') }]));
</script>

<svelte:head><title>{w.intake.title} · Fid</title></svelte:head>

{#if !intake.data}
  <Waiting error={intake.error} retry={() => intake.refetch()} />
{:else}
  <div class="page pb-8">
    <div class="flex flex-wrap items-end justify-between gap-3 pt-5 pb-3">
      <h1 class="text-2xl leading-tight">
        {w.intake.title}. <span class={waiting.length > 0 ? 'text-ochre' : 'text-soft'}>{w.intake.waiting(waiting.length)}</span>
      </h1>
      {#if intake.data.feed}<Button look="primary" disabled={busy} onclick={pull}>{w.intake.pull}</Button>{/if}
    </div>
    {#if !intake.data.feed}<p class="text-soft pb-3">{w.intake.none}</p>{/if}
    <ul class="border-ink border-t">
      {#each waiting as c (c.id)}
        <li class="border-rule grid gap-x-6 gap-y-1 border-b py-3 md:grid-cols-[22rem_1fr_auto]">
          <div>
            <strong>{name(c)}</strong> <span class="text-faint text-2xs">{c.candidate.id}</span>
            <p class="text-soft text-xs">
              {[c.candidate.email, c.candidate.phone, c.candidate.birthDate ? text.day(c.candidate.birthDate) : '']
                .filter(Boolean)
                .join(' · ')}
            </p>
            {#if c.known}
              {@const known = c.known}
              <p class="bg-ochre-tint mt-1 px-2 py-1 text-xs">
                {k.title} <strong>{fullName(known)}</strong>
                {aboutKnown(known)}, {whyKnown(known)}.
                <button type="button" class="link" onclick={() => take(c, known)}>{k.choose}</button>
              </p>
            {/if}
          </div>
          <p class="text-xs">
            {#if c.candidate.role}
              “{c.candidate.role}”
              {#if c.template}{w.intake.becomes(templates.data?.find((t) => t.code === c.template)?.name ?? c.template)}
              {:else}<strong class="text-ochre">{w.intake.noTemplate(c.candidate.role)}</strong>{/if}
            {/if}
            {#if c.candidate.site}
              <br />“{c.candidate.site}”
              {#if c.siteCode}{w.intake.becomes(nameOf(options.data?.options ?? [], 'sites', c.siteCode))}
              {:else}<strong class="text-ochre">{w.intake.noSite(c.candidate.site)}</strong>{/if}
            {/if}
            {#if c.candidate.start}<br />{text.t.hire.starts} {text.day(c.candidate.start)}{/if}
          </p>
          <div class="flex flex-wrap items-start gap-3">
            {#if declining === c.id}
              <div class="w-56"><TextField id="decline-why" label={w.intake.declineWhy} bind:value={why} maxlength={500} /></div>
              <Button onclick={() => (declining = undefined)}>{w.cancel}</Button>
              <Button
                look="danger"
                disabled={busy}
                onclick={() =>
                  act(async () => {
                    await data(api.POST('/api/intake/{id}/decline', { params: { path: { id: c.id } }, body: { why: why.trim() || null } }));
                    declining = undefined;
                    why = '';
                  })}>{w.intake.decline}</Button
              >
            {:else}
              <Button onclick={() => (declining = c.id)}>{w.intake.decline}</Button>
              <Button look="primary" onclick={() => take(c)}>{w.intake.take}</Button>
            {/if}
          </div>
        </li>
      {/each}
    </ul>
    {#if changed.length > 0}
      <h2 class="pt-5 pb-1 text-base">{w.intake.proposals}</h2>
      <ul class="border-ink border-t">
        {#each changed as c (c.id)}
          {#each c.proposals as p (p.field)}
            <li class="border-rule flex flex-wrap items-baseline gap-x-6 gap-y-1 border-b py-2">
              <a class="w-56 font-semibold hover:underline" href="/hires/{c.hireId}/record">{c.hireName ?? name(c)}</a>
              <span class="flex-1"
                >{w.intake.proposal(p.field === 'role' ? w.intake.role : fieldTitle(p.field), said(p.field, p.now))}
                <span class="text-soft text-xs">{said(p.field, p.before)}</span></span
              >
              <Button disabled={busy} onclick={() => settle(c, p.field, false)}>{w.intake.leave}</Button>
              {#if p.takesOver}
                <Button look="primary" disabled={busy} onclick={() => settle(c, p.field, true)}>{w.intake.takeOver}</Button>
              {:else if p.field === 'start_date'}
                <Button look="primary" disabled={busy} onclick={() => (moving = { hire: c.hireId!, to: p.now, open: true })}
                  >{occasions().arrival.move.open}</Button
                >
              {/if}
            </li>
          {/each}
        {/each}
      </ul>
    {/if}
    {#if rest.length > 0}
      <ul class="pt-4">
        {#each rest as c (c.id)}
          <li class="text-soft border-rule flex flex-wrap gap-x-6 border-b py-1 text-xs">
            <span class="w-56"
              >{#if c.hireId}<a class="link" href="/hires/{c.hireId}/checklist">{c.hireName ?? name(c)}</a>{:else}{name(c)}{/if}</span
            >
            <span>{w.intake.states[c.state]}{c.why ? `: ${c.why}` : ''}</span>
          </li>
        {/each}
      </ul>
    {/if}
    <div class="grid gap-x-10 lg:grid-cols-2">
      <section aria-labelledby="runs">
        <h2 id="runs" class="pt-6 pb-1 text-base">{w.intake.runs}</h2>
        {#if session.may('edit connection')}
          <form
            class="flex items-end gap-3"
            onsubmit={(e) => {
              e.preventDefault();
              void keepAddress();
            }}
          >
            <div class="flex-1">
              <TextField
                id="feed-address"
                label={w.intake.feed}
                value={address}
                error={wrongAddress}
                maxlength={500}
                oninput={(e) => (typedAddress = e.currentTarget.value)}
              />
            </div>
            <Button type="submit">{w.intake.save}</Button>
          </form>
        {:else if intake.data.feed}<p class="text-soft text-xs">{intake.data.feed}</p>{/if}
        <ul>
          {#each intake.data.runs as run (run.at)}
            <li class="border-rule border-b py-1 text-xs">
              {text.day(run.at.slice(0, 10))}, {run.at.slice(11, 16)}: {run.succeeded
                ? w.intake.run(run.candidates, run.arrived, run.changed)
                : w.intake.failed}{#if run.tries > 1}, {w.intake.tries(run.tries)}{/if}
              {#each run.trouble as trouble, i (i)}<span class="block {run.succeeded ? 'text-ochre' : 'text-rust'}">{trouble}</span>{/each}
            </li>
          {/each}
        </ul>
      </section>
      <section aria-labelledby="notices">
        <h2 id="notices" class="pt-6 pb-1 text-base">{w.intake.notices}</h2>
        <ul>
          {#each intake.data.notices as n (n.id)}
            <li class="border-rule flex flex-wrap items-baseline gap-x-4 border-b py-1 text-xs">
              <strong class="w-24">{w.intake.systems[n.system]}</strong>
              <span class="flex-1">{n.name ?? ''} {n.number} {w.intake.kinds[n.kind]}</span>
              {#if n.toldAt}<span class="text-soft">{w.intake.told(text.day(n.toldAt.slice(0, 10)), n.toldBy)}</span>
              {:else if n.byHand}
                <span class="text-ochre font-semibold">{w.intake.toTell}</span>
                <button
                  type="button"
                  class="link"
                  onclick={() => act(() => data(api.PUT('/api/outbox/{id}/told', { params: { path: { id: n.id } } })))}
                  >{w.intake.toldIt}</button
                >
              {:else if n.trouble}<span class="text-rust">{w.intake.again(n.tries, n.trouble)}</span>
              {:else}<span class="text-soft">{text.t.common.loading}</span>{/if}
            </li>
          {/each}
        </ul>
      </section>
    </div>
  </div>
{/if}
{#if moving}
  {#key moving.hire + moving.to}<MoveStart bind:open={moving.open} id={moving.hire} to={moving.to} />{/key}
{/if}

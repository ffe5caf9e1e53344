<script lang="ts">
  import { api, ApiProblem, data } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { showMoment, words } from '$lib/admin/words';
  import CalendarLink from '$lib/admin/CalendarLink.svelte';
  import OwnFactors from '$lib/factor/OwnFactors.svelte';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { done, failed } from '$lib/ui/toast';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { adminKeys } from '$lib/admin/queries';

  /** Is somebody else signed in as me, and is my password mine alone? */
  const client = useQueryClient();
  const w = $derived(words().account);
  const sessions = createQuery(() => ({ queryKey: adminKeys.sessions, queryFn: () => data(api.GET('/api/sessions')) }));
  let current = $state('');
  let next = $state('');
  let again = $state('');
  let errors = $state<Record<string, string>>({});

  async function end(id: string) {
    try {
      await data(api.DELETE('/api/sessions/{id}', { params: { path: { id } } }));
      done(w.ended);
      await client.invalidateQueries({ queryKey: adminKeys.sessions });
    } catch (e) {
      failed(text.failure(e));
    }
  }

  async function endAll() {
    try {
      await data(api.DELETE('/api/sessions'));
      location.assign('/sign-in');
    } catch (e) {
      failed(text.failure(e));
    }
  }

  const changing = createMutation(() => ({
    mutationFn: async () => {
      await data(api.PUT('/api/session/password', { body: { current, new: next } }));
      [current, next, again] = ['', '', ''];
      done(w.changed);
      await session.load();
      await client.invalidateQueries({ queryKey: adminKeys.sessions });
    },
    onError: (e) => {
      if (e instanceof ApiProblem && e.errors.length > 0)
        errors = Object.fromEntries(e.errors.map((p) => [p.pointer.slice(1), text.t.problems[p.code] ?? p.detail]));
      else failed(text.failure(e));
    }
  }));
  function change(event: SubmitEvent) {
    event.preventDefault();
    errors = next === again ? {} : { again: w.differ };
    if (errors.again) return;
    changing.mutate();
  }
</script>

<svelte:head><title>{w.title} · Fid</title></svelte:head>

{#if !sessions.data}
  <Waiting error={sessions.error} retry={() => sessions.refetch()} />
{:else}
  <div class="page max-w-3xl pb-10">
    <h1 class="pt-5 pb-1 text-2xl leading-tight">{session.user?.name}</h1>
    <p class="text-soft pb-3">{session.user?.email}</p>
    <label class="text-soft flex items-center gap-2 pb-5"
      >{w.language}
      <select
        value={text.language}
        onchange={(e) => void session.speak(e.currentTarget.value)}
        class="border-rule bg-sheet text-ink min-h-8 rounded border px-2"
      >
        {#each Object.entries(words().accountSheet.languages) as [code, name] (code)}<option value={code}>{name}</option>{/each}
      </select></label
    >

    <h2 class="border-ink border-t-2 pt-3 text-lg">{w.sessions}</h2>
    <p class="text-soft pb-2">{w.intro}</p>
    <ul class="divide-rule border-rule divide-y border-y">
      {#each sessions.data as s (s.id)}
        <li class="flex flex-wrap items-baseline gap-x-4 gap-y-1 py-2">
          <span class="min-w-0 flex-1 basis-64">
            <span class="block truncate font-semibold" title={s.browser}>{s.browser || '–'}</span>
            <span class="text-soft text-xs">{s.address} · {w.since(showMoment(s.startedAt))}, {w.until(showMoment(s.endsAt))}</span>
          </span>
          {#if s.here}<span class="text-sea font-semibold">{w.here}</span>{:else}<Button onclick={() => end(s.id)}>{w.end}</Button>{/if}
        </li>
      {/each}
    </ul>
    <div class="flex justify-end pt-3 pb-6"><Button onclick={endAll}>{w.endAll}</Button></div>

    <OwnFactors />

    {#if session.may('see hire')}<CalendarLink />{/if}

    <h2 class="border-ink border-t-2 pt-3 text-lg">{w.password}</h2>
    <p class="text-soft pb-3">{w.passwordNote}</p>
    <form onsubmit={change} class="max-w-sm space-y-3">
      <input type="hidden" autocomplete="username" value={session.user?.email} />
      <TextField
        id="current"
        label={w.current}
        type="password"
        autocomplete="current-password"
        required
        maxlength={200}
        bind:value={current}
        error={errors.current}
      />
      <TextField
        id="new"
        label={w.next}
        type="password"
        autocomplete="new-password"
        required
        maxlength={200}
        bind:value={next}
        error={errors.new}
      />
      <TextField
        id="again"
        label={w.again}
        type="password"
        autocomplete="new-password"
        required
        maxlength={200}
        bind:value={again}
        error={errors.again}
      />
      <Button type="submit" look="primary" disabled={changing.isPending}>{w.change}</Button>
    </form>
  </div>
{/if}

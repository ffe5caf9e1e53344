<script lang="ts">
  import { again } from '$lib/api/again';
  import { api, ApiProblem, data, type Api } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import DateField from '$lib/ui/DateField.svelte';
  import PersonPicker from '$lib/ui/PersonPicker.svelte';
  import { done, failed } from '$lib/ui/toast';
  import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { taskKeys } from './queries';
  import { words } from './words';

  /** Who does my tasks while I am away, and whose do I do? */
  const w = $derived(words().away);
  const client = useQueryClient();
  const absences = createQuery(() => ({ queryKey: taskKeys.absences, queryFn: () => data(api.GET('/api/absences')) }));
  const own = $derived(absences.data?.own ?? []);
  const now = $derived(own.find((a) => a.from <= session.today));
  let open = $state(false);
  let from = $state<string | null>(null);
  let to = $state<string | null>(null);
  let standIn = $state('');
  let standInName = $state('');
  let problem = $state<unknown>();
  const error = (part: string) => (problem instanceof ApiProblem ? text.problem(problem.at(`/${part}`)) : undefined);
  const told = { onSettled: () => again(client, taskKeys.absences, taskKeys.mine) };
  const enter = createMutation(() => ({
    mutationFn: () => data(api.POST('/api/absences', { body: { account: null, from, to, standIn: standIn || null } })),
    onMutate: () => (problem = undefined),
    onSuccess: () => {
      done(w.entered);
      from = to = null;
      standIn = standInName = '';
    },
    onError: (e) => {
      problem = e;
      if (!(e instanceof ApiProblem && e.errors.length > 0)) failed(text.failure(e));
    },
    ...told
  }));
  const end = createMutation(() => ({
    mutationFn: (id: string) => data(api.DELETE('/api/absences/{id}', { params: { path: { id } } })),
    onSuccess: () => done(w.ended),
    onError: (e) => failed(text.failure(e)),
    ...told
  }));
  const line = (a: Api['AbsenceResponse']) => w.line(text.day(a.from), text.day(a.to), a.standIn);
</script>

<div class="pb-2">
  {#if now}<p class="font-semibold">{w.now(text.day(now.to), now.standIn)}</p>{/if}
  {#each absences.data?.standsInFor ?? [] as other (other.name)}<p>{w.standsInFor(other.name, text.day(other.to))}</p>{/each}
  <button type="button" class="link text-xs" aria-expanded={open} aria-controls="away" onclick={() => (open = !open)}>{w.open}</button>
  {#if open}
    <section id="away" aria-labelledby="away-title" class="border-sea bg-sheet mt-1 max-w-3xl border-l-4 px-3 py-2">
      <h2 id="away-title" class="text-base">{w.title}</h2>
      <p class="text-soft max-w-prose text-xs">{w.about}</p>
      <ul class="py-1">
        {#each own as absence (absence.id)}
          <li class="flex flex-wrap items-baseline gap-x-3">
            {line(absence)}
            <button
              type="button"
              class="link text-xs"
              aria-label="{absence === now ? w.back : w.end}: {line(absence)}"
              disabled={end.isPending}
              onclick={() => end.mutate(absence.id)}>{absence === now ? w.back : w.end}</button
            >
          </li>
        {/each}
      </ul>
      <form
        class="flex flex-wrap items-start gap-x-4 gap-y-1"
        onsubmit={(e) => {
          e.preventDefault();
          enter.mutate();
        }}
      >
        <div class="w-full sm:w-52"><DateField id="away-from" label={w.from} bind:value={from} error={error('from')} /></div>
        <div class="w-full sm:w-52"><DateField id="away-to" label={w.to} bind:value={to} error={error('to')} /></div>
        <div class="w-full sm:w-56">
          <PersonPicker
            id="away-stand-in"
            label={w.standIn}
            value={standIn}
            shown={standInName}
            note={standIn ? undefined : w.nobody}
            error={error('standIn')}
            onchange={(value, name) => ([standIn, standInName] = [value, name])}
          />
        </div>
        <div class="pt-4"><Button type="submit" disabled={enter.isPending}>{w.enter}</Button></div>
      </form>
    </section>
  {/if}
</div>

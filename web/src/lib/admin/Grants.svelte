<script lang="ts">
  import { again } from '$lib/api/again';
  import { api, ApiProblem, data, type Api } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import DateField from '$lib/ui/DateField.svelte';
  import { done, failed } from '$lib/ui/toast';
  import { createMutation, useQueryClient } from '@tanstack/svelte-query';
  import { adminKeys } from './queries';
  import { words } from './words';

  /** What does this account have for a time or by rule, and until when? */
  interface Props {
    detail: Api['AccountDetail'];
    /** The roles there are, with what they are called. */
    roles: { id: string; name: string }[];
    /** What a group is called. */
    group: (id: string) => string;
    mayGrant: boolean;
  }
  let { detail, roles, group, mayGrant }: Props = $props();
  const client = useQueryClient();
  const w = $derived(words().grants);
  let role = $state('');
  let from = $state<string | null>(null);
  let to = $state<string | null>(null);
  let problem = $state<unknown>();
  const error = (part: string) => (problem instanceof ApiProblem ? text.problem(problem.at(`/${part}`)) : undefined);
  const name = (id: string) => roles.find((r) => r.id === id)?.name ?? words().accounts.roles[id] ?? id;
  const path = $derived({ id: detail.account.id });
  const told = { onSettled: () => again(client, adminKeys.accounts, adminKeys.rights) };
  const give = createMutation(() => ({
    mutationFn: () => data(api.POST('/api/accounts/{id}/grants', { params: { path }, body: { role, from, to, why: null } })),
    onMutate: () => (problem = undefined),
    onSuccess: () => {
      done(w.given);
      role = '';
      from = to = null;
    },
    onError: (e) => {
      problem = e;
      if (!(e instanceof ApiProblem && e.errors.length > 0)) failed(text.failure(e));
    },
    ...told
  }));
  const end = createMutation(() => ({
    mutationFn: (grant: string) => data(api.DELETE('/api/accounts/{id}/grants/{grant}', { params: { path: { ...path, grant } } })),
    onSuccess: () => done(w.ended),
    onError: (e) => failed(text.failure(e)),
    ...told
  }));
  const days = (grant: Api['AccountGrant']) =>
    w.days(grant.from ? text.day(grant.from) : undefined, grant.to ? text.day(grant.to) : undefined);
</script>

<section aria-labelledby="grants" class="border-rule border-t pt-2 lg:col-span-3">
  <h3 id="grants" class="text-soft text-xs">{w.title}</h3>
  <ul>
    {#each detail.grants as grant (grant.id)}
      <li class="flex flex-wrap items-baseline gap-x-3">
        <strong>{name(grant.role)}</strong>
        {days(grant)}
        <span class="text-soft text-xs"><bdi>{grant.byName}</bdi></span>
        {#if mayGrant}<button
            type="button"
            class="link text-xs"
            aria-label="{w.end}: {name(grant.role)}, {days(grant)}"
            disabled={end.isPending}
            onclick={() => end.mutate(grant.id)}>{w.end}</button
          >{/if}
      </li>
    {/each}
    {#each detail.ruled as ruled (ruled.role + ruled.group)}<li>
        {w.ruled(name(ruled.role), ruled.group === null ? null : group(ruled.group))}
      </li>{/each}
  </ul>
  {#if mayGrant}
    <div class="flex flex-wrap items-start gap-x-4 gap-y-1 pt-1">
      <label class="text-soft grid gap-0.5 text-xs"
        >{w.role}
        <select bind:value={role} aria-label={w.role} class="border-rule bg-sheet text-ink min-h-8 rounded border px-2">
          <option value=""></option>
          {#each roles as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
        </select>
        {#if error('role')}<span class="text-rust text-2xs font-semibold">{error('role')}</span>{/if}
      </label>
      <div class="w-44"><DateField id="grant-from" label={w.from} bind:value={from} error={error('from')} /></div>
      <div class="w-44"><DateField id="grant-to" label={w.to} bind:value={to} error={error('to')} /></div>
      <div class="pt-4">
        <Button disabled={role === '' || (from === null && to === null) || give.isPending} onclick={() => give.mutate()}>{w.give}</Button>
      </div>
    </div>
  {/if}
</section>

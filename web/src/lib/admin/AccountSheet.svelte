<script lang="ts">
  import { api, ApiProblem, data, type Api } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import ManyPicker from '$lib/lists/ManyPicker.svelte';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import PersonPicker from '$lib/ui/PersonPicker.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { done, failed } from '$lib/ui/toast';
  import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { AccountForm, shippedRoles } from './account.svelte';
  import Grants from './Grants.svelte';
  import GivenLink from './GivenLink.svelte';
  import { accountQuery, adminKeys, rightsQuery } from './queries';
  import { showMoment, words } from './words';

  /** Who is this, what may they, and can they get in? */
  interface Props {
    form: AccountForm;
    /** The account as it is; nothing while somebody is invited. */
    detail?: Api['AccountDetail'];
    onclose: () => void;
  }
  let { form = $bindable(), detail, onclose }: Props = $props();
  const client = useQueryClient();
  const w = $derived(words().accountSheet);
  const a = $derived(words().accounts);
  let given = $state<Api['LinkResponse']>();
  let open = $state(true);
  const account = $derived(detail?.account);
  // The firm's own roles stand beside those that ship.
  const rights = createQuery(() => ({ ...rightsQuery(), enabled: session.may('see role') }));
  const own = $derived((rights.data?.roles ?? []).filter((r) => !r.ships));
  const inLanguage = (label: { en: string; de: string }) => (text.language === 'de' ? label.de : label.en);
  const roles = $derived([
    ...shippedRoles.map((id) => ({ id: id as string, name: a.roles[id] ?? id })),
    ...own.map((r) => ({ id: r.id, name: inLanguage(r.label) }))
  ]);
  const group = (id: string) => {
    const there = rights.data?.groups.find((g) => g.id === id);
    return there ? inLanguage(there.label) : id;
  };
  // Somebody is invited who has no account, or one that sleeps.
  const invites = $derived(!account || account.state === 'asleep');

  const told = async () => {
    await client.invalidateQueries({ queryKey: adminKeys.accounts });
  };
  const act = { onError: (e: Error) => failed(text.failure(e)), onSettled: told };
  const invite = createMutation(() => ({ mutationFn: () => form.invite(), onSuccess: (link) => void (given = link), onSettled: told }));
  const save = createMutation(() => ({
    mutationFn: () => form.save(),
    onSuccess: () => {
      done(w.saved);
      onclose();
    },
    onError: async (e) => {
      // Who saves second is told, and saves over it if they mean to.
      if (e instanceof ApiProblem && e.status === 412 && form.id)
        form.over(await client.fetchQuery({ ...accountQuery(form.id), staleTime: 0 }));
    },
    onSettled: told
  }));
  const path = $derived({ params: { path: { id: form.id ?? '' } } });
  const link = createMutation(() => ({
    mutationFn: () => data(api.POST('/api/accounts/{id}/link', path)),
    onSuccess: (made) => void (given = made),
    ...act
  }));
  const turn = createMutation(() => ({
    mutationFn: (disable: boolean) =>
      data(disable ? api.PUT('/api/accounts/{id}/disabled', path) : api.DELETE('/api/accounts/{id}/disabled', path)),
    onSuccess: (_, disable) => {
      done(disable ? w.disabled(form.name) : w.enabled(form.name));
      onclose();
    },
    ...act
  }));
  const end = createMutation(() => ({
    mutationFn: () => data(api.DELETE('/api/accounts/{id}/sessions', path)),
    onSuccess: () => done(w.sessionsEnded),
    ...act
  }));
  const clear = createMutation(() => ({
    mutationFn: () => data(api.DELETE('/api/accounts/{id}/second-factor', path)),
    onSuccess: () => done(w.factorCleared),
    ...act
  }));
  const viewAs = createMutation(() => ({
    mutationFn: () => session.viewAs(form.id ?? ''),
    onError: (e: Error) => failed(text.failure(e))
  }));
  const busy = $derived([invite, save, link, turn, end].some((m) => m.isPending));

  function send(event: SubmitEvent) {
    event.preventDefault();
    if (busy) return;
    if (invites) invite.mutate();
    else save.mutate();
  }
  function another() {
    given = undefined;
    form = AccountForm.inviting(undefined, text.language);
  }
</script>

<Dialog
  bind:open
  place="bottom"
  title={account && !invites ? account.name : w.inviteTitle}
  {onclose}
  focus={given ? undefined : '#account-name'}
>
  <div class="page pt-3 pb-5">
    {#if given}
      <GivenLink name={form.name} link={given}>
        {#snippet acts()}
          {#if !detail}<Button onclick={another}>{words().given.another}</Button>{/if}
          <Button onclick={onclose}>{words().given.done}</Button>
        {/snippet}
      </GivenLink>
    {:else}
      <form onsubmit={send} novalidate class="grid gap-x-8 gap-y-2 lg:grid-cols-[1fr_1.2fr_1fr]">
        <div class="space-y-1">
          <TextField
            id="account-name"
            label={w.name}
            autocomplete="off"
            maxlength={200}
            bind:value={form.name}
            error={form.error('name')}
          />
          <TextField
            id="account-email"
            label={w.email}
            type="email"
            autocomplete="off"
            maxlength={254}
            bind:value={form.email}
            error={form.error('email')}
          />
          <label class="text-soft flex items-center gap-2 text-xs"
            >{w.language}
            <select bind:value={form.language} class="border-rule bg-sheet text-ink min-h-8 rounded border px-2">
              {#each Object.entries(w.languages) as [code, name] (code)}<option value={code}>{name}</option>{/each}
            </select></label
          >
        </div>
        <fieldset>
          <legend class="text-soft pb-1 text-xs">{w.roles}</legend>
          {#each roles as role (role.id)}
            <label class="flex min-h-6 items-baseline gap-2"
              ><input
                type="checkbox"
                checked={form.roles.includes(role.id)}
                onchange={(e) => form.turn(role.id, e.currentTarget.checked)}
              /><strong>{role.name}</strong><span class="text-soft text-xs">{a.about[role.id] ?? ''}</span></label
            >
          {/each}
          {#if form.error('roles')}<p class="text-rust text-2xs font-semibold">{form.error('roles')}</p>{/if}
        </fieldset>
        <div class="space-y-1">
          <ManyPicker
            id="account-teams"
            label={w.teams}
            list="teams"
            value={form.teams}
            note={form.roles.includes('owner') && form.teams.length === 0 ? w.noTeam : undefined}
            error={form.error('teams')}
            onchange={(teams) => (form.teams = teams)}
          />
          <PersonPicker
            id="account-person"
            label={w.person}
            value={form.employment ?? ''}
            shown={form.person}
            note={w.personNote}
            error={form.error('employment')}
            onchange={(value, name) => {
              form.employment = value || null;
              if (value && !form.name) form.name = name;
            }}
          />
        </div>
        {#if form.failure}<p role="alert" class="border-rust bg-rust-tint text-rust border-l-4 px-3 py-2 lg:col-span-3">
            {form.failure}
          </p>{/if}
        {#if detail && !invites}
          <p class="text-soft text-xs lg:col-span-3">
            {w.sessions(detail.sessions.length)}
            {detail.secondFactorSince ? w.factor(showMoment(detail.secondFactorSince)) : ''}
            {detail.sessions.map((s) => w.from(s.address, showMoment(s.startedAt))).join(' · ')}
          </p>
        {/if}
        {#if detail && !invites}
          <Grants {detail} {roles} {group} mayGrant={session.may('grant role') && detail.account.id !== session.user?.id} />
        {/if}
        <div class="flex flex-wrap items-center gap-3 lg:col-span-3">
          <Button type="submit" look="primary" disabled={busy}>{invites ? w.invite : w.save}</Button>
          <Button onclick={onclose}>{w.cancel}</Button>
          {#if account && !invites}
            <span class="flex-1"></span>
            {#if account.state !== 'disabled'}
              {#if account.state === 'active' && account.id !== session.user?.id && session.may('view-as account')}
                <Button disabled={busy || viewAs.isPending} onclick={() => viewAs.mutate()}>{w.viewAs}</Button>
              {/if}
              {#if detail?.secondFactorSince && account.id !== session.user?.id}
                <Button disabled={busy} title={w.clearFactorNote} onclick={() => clear.mutate()}>{w.clearFactor}</Button>
              {/if}
              <Button disabled={busy} title={w.linkNote} onclick={() => link.mutate()}>{w.link}</Button>
              {#if detail && detail.sessions.length > 0}<Button disabled={busy} onclick={() => end.mutate()}>{w.endSessions}</Button>{/if}
              <Button look="danger" disabled={busy} onclick={() => turn.mutate(true)}>{w.disable}</Button>
            {:else}
              <Button disabled={busy} onclick={() => turn.mutate(false)}>{w.enable}</Button>
            {/if}
          {/if}
        </div>
      </form>
    {/if}
  </div>
</Dialog>

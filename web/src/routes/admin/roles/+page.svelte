<script lang="ts">
  import Parts from '$lib/admin/Parts.svelte';
  import { adminKeys, rightsQuery } from '$lib/admin/queries';
  import { RoleDrafting } from '$lib/roles/drafting.svelte';
  import Explained from '$lib/roles/Explained.svelte';
  import GroupSheet from '$lib/roles/GroupSheet.svelte';
  import { RoleNames } from '$lib/roles/naming';
  import Review from '$lib/roles/Review.svelte';
  import { toldRole, type Configuration, type Role } from '$lib/roles/rights';
  import RightsTable from '$lib/roles/RightsTable.svelte';
  import RoleSheet from '$lib/roles/RoleSheet.svelte';
  import Versions from '$lib/roles/Versions.svelte';
  import { words } from '$lib/roles/words';
  import { words as adminWords } from '$lib/admin/words';
  import { api, data } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { keys } from '$lib/keys/keys.svelte';
  import { optionsQuery } from '$lib/lists/queries';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import FooterSheet from '$lib/ui/FooterSheet.svelte';
  import { failed } from '$lib/ui/toast';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  /** Who may do what by which role, and what would a change give and take? */
  const client = useQueryClient();
  const w = $derived(words());
  const server = createQuery(rightsQuery);
  const options = optionsQuery();
  const drafting = new RoleDrafting();
  let taken: unknown;
  $effect(() => {
    const answer = server.data;
    // What is being edited is not thrown away for an answer of its own save.
    if (
      !answer ||
      answer === taken ||
      (drafting.isDraft && answer.draft && taken !== undefined && answer.draft.askedBy === drafting.askedBy)
    )
      return;
    taken = answer;
    drafting.take(answer);
  });
  const mayEdit = session.may('edit role');
  const names = $derived(server.data ? new RoleNames(server.data, drafting.content, options.data?.options ?? []) : undefined);
  const shipped = $derived((server.data?.roles ?? []).filter((r) => r.ships).map(toldRole));
  const roles = $derived<Role[]>([...shipped, ...drafting.content.roles]);
  let selected = $state<string>();
  let groupSelected = $state<string>();
  const role = $derived(roles.find((r) => r.id === selected));
  const group = $derived(drafting.content.groups.find((g) => g.id === groupSelected));
  let reviewing = $state(false);
  let explaining = $state(false);
  let comparing = $state(false);
  let file = $state<HTMLInputElement>();

  function add(like?: Role) {
    selected = drafting.addRole(
      like ? w.role.likeName(names!.role(like.id)) : w.newRole,
      roles.map((r) => r.id),
      like
    );
  }
  function addGroup() {
    groupSelected = drafting.addGroup(w.newGroup, '');
  }
  async function discard() {
    if (!confirm(w.draft.discardSure)) return;
    try {
      await data(api.DELETE('/api/rights/draft', { headers: { 'If-Match': drafting.version ?? '' } }));
    } catch (e) {
      return failed(text.failure(e));
    }
    forget();
    await client.invalidateQueries({ queryKey: adminKeys.rights });
  }
  function forget() {
    taken = undefined;
    drafting.isDraft = false;
    selected = groupSelected = undefined;
  }
  async function take(chosen: FileList | null) {
    const first = chosen?.[0];
    if (!first) return;
    try {
      await drafting.put(JSON.parse(await first.text()) as Configuration);
    } catch (e) {
      failed(text.failure(e));
    }
    file!.value = '';
  }
  function download() {
    const link = document.createElement('a');
    link.href = URL.createObjectURL(new Blob([JSON.stringify(drafting.content, null, 2)], { type: 'application/json' }));
    link.download = 'roles.json';
    link.click();
    URL.revokeObjectURL(link.href);
  }
  $effect(() =>
    keys.use(() => [
      ...(mayEdit ? [{ key: 'a', label: w.add, run: () => add() }] : []),
      { key: 'w', label: w.explain, run: () => (explaining = true) }
    ])
  );
</script>

<svelte:head><title>{adminWords().places.roles} · Fid</title></svelte:head>

{#if !server.data || !names}
  <Waiting error={server.error} retry={() => server.refetch()} />
{:else}
  <div class="page pb-10">
    <div class="flex flex-wrap items-end justify-between gap-x-8 gap-y-2 pt-5 pb-1">
      <div>
        <h1 class="text-2xl leading-tight">{w.news(drafting.content.roles.length)}</h1>
        <p class="text-soft">{w.intro}</p>
      </div>
      <div class="flex flex-wrap gap-3">
        <Button key="w" onclick={() => (explaining = true)}>{w.explain}</Button>
        {#if mayEdit}<Button look="primary" key="a" onclick={() => add()}>{w.add}</Button>{/if}
      </div>
    </div>
    <div class="flex flex-wrap items-end justify-between gap-x-8 gap-y-2 py-2">
      <Parts />
      <p class="flex flex-wrap gap-x-5 text-xs">
        <button type="button" class="link" onclick={() => (comparing = true)}>{w.versions}</button>
        <button type="button" class="link" onclick={download}>{w.export}</button>
        {#if mayEdit}
          <button type="button" class="link" onclick={() => file?.click()}>{w.import}</button>
          <input
            bind:this={file}
            type="file"
            accept="application/json,.json"
            class="hidden"
            onchange={(e) => take(e.currentTarget.files)}
          />
        {/if}
      </p>
    </div>
    <RightsTable rights={server.data} {roles} {names} onchoose={(id) => (selected = id)} />
    <section aria-labelledby="groups" class="pt-6">
      <div class="border-ink flex items-baseline justify-between border-t pt-3">
        <h2 id="groups" class="text-base">{w.group.title}</h2>
        {#if mayEdit}<button type="button" class="link" onclick={addGroup}>{w.addGroup}</button>{/if}
      </div>
      <ul>
        {#each drafting.content.groups as one (one.id)}
          {@const live = server.data.groups.find((g) => g.id === one.id)}
          <li class="border-rule flex flex-wrap items-baseline gap-x-4 border-b py-1.5">
            <button type="button" class="font-semibold hover:underline" onclick={() => (groupSelected = one.id)}
              ><bdi>{names.group(one.id)}</bdi></button
            >
            <code class="text-soft text-xs">{one.when}</code>
            {#if live}<span>{w.group.people(live.people)}</span>{/if}
            {#if one.roles?.length}<span class="text-soft">{w.group.rule(text.list(one.roles.map((r) => names.role(r))))}</span>{/if}
          </li>
        {:else}<li class="text-soft max-w-prose py-2">{w.group.none}</li>{/each}
      </ul>
    </section>
  </div>
  {#if drafting.isDraft && mayEdit}
    <FooterSheet label={w.draft.notLive} tone={(drafting.review?.problems.length ?? 0) > 0 || drafting.errors.length > 0 ? 'rust' : 'sea'}>
      <div class="min-w-0 flex-1">
        {#if drafting.other}
          <p class="text-rust font-semibold">{w.draft.other(drafting.other.byName)}</p>
        {:else}
          <p class="font-semibold">{w.draft.notLive}</p>
          {#if (drafting.review?.problems.length ?? 0) > 0}
            <p class="text-rust">{w.draft.wrong} {drafting.review!.problems[0]!.detail}</p>
          {:else if drafting.errors.length > 0}
            <p class="text-rust">{w.draft.wrong} {drafting.errors[0]!.detail}</p>
          {:else}<p class="text-soft text-xs">{drafting.saving ? w.draft.saving : w.draft.by(drafting.by)}</p>{/if}
        {/if}
      </div>
      {#if drafting.other}
        <Button onclick={() => void drafting.settle(false)}>{w.draft.theirs}</Button>
        <Button onclick={() => void drafting.settle(true)}>{w.draft.ours}</Button>
      {:else}
        <Button onclick={() => void discard()}>{w.draft.discard}</Button>
        <Button look="primary" disabled={!drafting.review || drafting.review.problems.length > 0} onclick={() => (reviewing = true)}
          >{w.draft.review}</Button
        >
      {/if}
    </FooterSheet>
  {/if}
  {#if role}
    {#key role.id}
      <RoleSheet
        {role}
        everyRole={roles}
        ships={shipped.some((r) => r.id === role.id)}
        {drafting}
        {names}
        {mayEdit}
        onlike={add}
        onclose={() => (selected = undefined)}
      />
    {/key}
  {/if}
  {#if group && mayEdit}{#key group.id}<GroupSheet {group} {drafting} {names} onclose={() => (groupSelected = undefined)} />{/key}{/if}
  <Review bind:open={reviewing} {drafting} {names} onlive={forget} />
  <Explained bind:open={explaining} {names} />
  <Versions bind:open={comparing} {names} ontake={mayEdit ? (configuration) => void drafting.put(configuration) : undefined} />
{/if}

<script lang="ts">
  import { again } from '$lib/api/again';
  import { api, ApiProblem, data, type Api } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { done } from '$lib/ui/toast';
  import { createMutation, useQueryClient } from '@tanstack/svelte-query';
  import { adminKeys } from '$lib/admin/queries';
  import type { RoleDrafting } from './drafting.svelte';
  import type { RoleNames } from './naming';
  import { toldReach } from './rights';
  import { words } from './words';

  /** Who would get more and who less, before it is made live? */
  interface Props {
    open: boolean;
    drafting: RoleDrafting;
    names: RoleNames;
    onlive: () => void;
  }
  let { open = $bindable(), drafting, names, onlive }: Props = $props();
  const client = useQueryClient();
  const w = $derived(words().review);
  const review = $derived(drafting.review);
  const asks = $derived(review?.needsSecond === true && drafting.askedBy === '');
  const waits = $derived(review?.needsSecond === true && drafting.askedById === session.user?.id);
  const own = $derived(review?.widensOwn === true && !asks);
  const nothing = $derived(
    review !== undefined &&
      review.roles.length === 0 &&
      review.groups.length === 0 &&
      review.proved.length + review.noLongerProved.length === 0
  );
  let why = $state('');
  let error = $state('');

  const publish = createMutation(() => ({
    mutationFn: () =>
      data(api.POST('/api/rights/draft/publish', { body: { why: why.trim() || null }, headers: { 'If-Match': drafting.version ?? '' } })),
    onSuccess: async (published) => {
      open = false;
      done(published.version === null ? w.asked : w.done(published.version));
      onlive();
      await again(client, adminKeys.rights, adminKeys.accounts);
    },
    onError: (e) => {
      if (e instanceof ApiProblem && e.status === 412) {
        drafting.other = e.current as Api['RightsDraftResponse'];
        open = false;
      } else error = text.failure(e);
    }
  }));
</script>

{#snippet changes(gained: Api['RightResponse'][], lost: Api['RightResponse'][])}
  <ul class="pl-4">
    {#each gained as right, i (i)}
      <li><strong class="text-sea">{w.gains}</strong> {names.right(right)} · {names.reach(toldReach(right.reach))}</li>
    {/each}
    {#each lost as right, i (i)}
      <li><strong class="text-rust">{w.loses}</strong> {names.right(right)} · {names.reach(toldReach(right.reach))}</li>
    {/each}
  </ul>
{/snippet}

<Dialog bind:open title={w.title} focus="#rights-why">
  <div class="space-y-3 px-5 pt-2 pb-5">
    {#if review}
      {#if nothing}<p>{w.nothing}</p>{/if}
      {#if review.needsSecond}
        <p class="border-ochre bg-ochre-tint border-l-4 px-3 py-2 font-semibold">
          {drafting.askedBy === '' ? w.widens : waits ? w.waits : own ? w.own : w.asksYou(drafting.askedBy)}
        </p>
      {/if}
      {#each review.proved as role (role)}<p class="font-semibold">{w.proved(names.role(role))}</p>{/each}
      {#each review.noLongerProved as role (role)}<p class="text-rust font-semibold">{w.noLongerProved(names.role(role))}</p>{/each}
      {#if review.roles.length > 0}
        <section>
          <h3 class="text-base">{w.roles}</h3>
          {#each review.roles as role (role.role)}
            <p class="font-semibold">
              {names.role(role.role)}
              <span class="text-soft font-normal">{role.isNew ? w.isNew : role.isGone ? w.isGone : ''}</span>
            </p>
            {@render changes(role.gained, role.lost)}
          {/each}
        </section>
      {/if}
      {#if review.groups.length > 0}
        <section>
          <h3 class="text-base">{w.groups}</h3>
          {#each review.groups as group (group.group)}
            <p>
              <strong>{names.group(group.group)}</strong>: {w.counts(group.before, group.after)}
              {#if group.coming.length > 0}<span class="text-soft block pl-4 text-xs">{w.coming(text.list(group.coming))}</span>{/if}
              {#if group.going.length > 0}<span class="text-soft block pl-4 text-xs">{w.going(text.list(group.going))}</span>{/if}
            </p>
          {/each}
        </section>
      {/if}
      {#if !nothing}
        <section>
          <h3 class="text-base">{w.people}</h3>
          {#each review.holders as holder (holder.account)}
            <p class="font-semibold"><bdi>{holder.name}</bdi></p>
            {@render changes(holder.gained, holder.lost)}
          {:else}<p class="text-soft">{w.nobody}</p>{/each}
        </section>
        <TextField id="rights-why" label={w.why} bind:value={why} maxlength={500} />
      {/if}
    {/if}
    {#if error}<p role="alert" class="text-rust font-semibold">{error}</p>{/if}
    <div class="flex justify-end gap-3 pt-1">
      <Button onclick={() => (open = false)}>{w.cancel}</Button>
      <Button
        look="primary"
        disabled={publish.isPending || !review || nothing || review.problems.length > 0 || waits || own}
        onclick={() => {
          error = '';
          publish.mutate();
        }}>{asks ? w.ask : review?.needsSecond ? w.agree : w.act}</Button
      >
    </div>
  </div>
</Dialog>

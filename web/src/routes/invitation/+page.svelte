<script lang="ts">
  import { words } from '$lib/admin/words';
  import { api, ApiProblem, data, type Api } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Mark from '$lib/ui/Mark.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { createMutation, createQuery } from '@tanstack/svelte-query';
  import { adminKeys } from '$lib/admin/queries';

  /** Is this for me, and how do I get in? What the link holds stays in the browser: it is never part of an address that is sent. */
  const token = location.hash.slice(1);
  const w = $derived(words().invitation);
  let password = $state('');
  let again = $state('');
  let wrong = $state<{ password?: string; again?: string }>({});
  const whose = createQuery(() => ({
    queryKey: adminKeys.invitation(token),
    queryFn: () => data(api.POST('/api/invitations/look', { body: { token } })),
    retry: false
  }));
  const spent = $derived(whose.error instanceof ApiProblem && whose.error.code === 'link-spent');
  const set = createMutation(() => ({
    mutationFn: async (to: Api['InvitationResponse']) => {
      await data(api.POST('/api/invitations/password', { body: { token, password } }));
      await session.signIn(to.email, password);
      location.assign('/');
    },
    onError: (e) => {
      wrong = { password: (e instanceof ApiProblem && text.problem(e.at('/password'))) || text.failure(e) };
    }
  }));

  function send(event: SubmitEvent) {
    event.preventDefault();
    wrong = password === again ? {} : { again: words().account.differ };
    if (!wrong.again && whose.data) set.mutate(whose.data);
  }
</script>

<svelte:head><title>{w.title} · Fid</title></svelte:head>

{#if whose.data}
  {@const to = whose.data}
  <div class="mx-auto max-w-md px-5 pt-[10dvh] pb-10 text-base">
    <p class="font-display flex items-center gap-2 text-2xl font-bold"><Mark />Fid</p>
    <h1 class="border-ink mt-6 border-t-2 pt-4 text-xl leading-snug">{to.isNew ? w.welcome(to.name, to.firm) : w.again(to.name)}</h1>
    <p class="text-soft py-3">{w.signsIn} <strong class="text-ink">{to.email}</strong></p>
    <form onsubmit={send} class="space-y-3" novalidate>
      <input type="hidden" autocomplete="username" value={to.email} />
      <TextField
        id="password"
        label={w.choose}
        type="password"
        autocomplete="new-password"
        maxlength={200}
        bind:value={password}
        error={wrong.password}
      />
      <p class="text-soft text-xs">{words().account.passwordNote}</p>
      <TextField
        id="again"
        label={w.onceMore}
        type="password"
        autocomplete="new-password"
        maxlength={200}
        bind:value={again}
        error={wrong.again}
      />
      <Button type="submit" look="primary" disabled={set.isPending}>{w.act}</Button>
    </form>
  </div>
{:else if spent}
  <div class="mx-auto max-w-md px-5 pt-[10dvh] text-base">
    <p class="font-display flex items-center gap-2 text-2xl font-bold"><Mark />Fid</p>
    <h1 class="border-ink mt-6 border-t-2 pt-4 text-xl">{w.spent}</h1>
    <p class="text-soft py-3">{w.spentNote}</p>
    <a class="link" href="/sign-in">{w.toSignIn}</a>
  </div>
{:else}
  <Waiting error={whose.error} retry={() => whose.refetch()} />
{/if}

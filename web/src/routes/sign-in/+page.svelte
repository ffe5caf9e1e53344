<script lang="ts">
  import { page } from '$app/state';
  import { session } from '$lib/api/session.svelte';
  import { waysQuery } from '$lib/factor/queries';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Mark from '$lib/ui/Mark.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { createMutation, createQuery } from '@tanstack/svelte-query';

  let email = $state('');
  let password = $state('');
  let problem = $state<string>();
  // Where the firm's people sign in anyway, and what came of it when they were sent back.
  const ways = createQuery(() => waysQuery());
  const refused = $derived(page.url.searchParams.get('problem'));
  const to = $derived(page.url.searchParams.get('to') ?? '/');

  const signingIn = createMutation(() => ({
    mutationFn: async () => {
      await session.signIn(email.trim(), password);
    },
    onError: (e) => {
      problem = text.failure(e);
    }
  }));
  function signIn(event: SubmitEvent) {
    event.preventDefault();
    problem = undefined;
    signingIn.mutate();
  }
</script>

<svelte:head><title>{text.t.signIn.title} · Fid</title></svelte:head>

<div class="mx-auto max-w-sm px-5 pt-[16dvh]">
  <p class="font-display flex items-center gap-2 text-2xl font-bold"><Mark />Fid</p>
  <p class="text-soft mt-1 mb-8">{text.t.signIn.intro}</p>
  <h1 class="border-ink mb-4 border-t-2 pt-4 text-xl">{session.firm?.name}</h1>
  {#if session.secondFactor}
    {#await import('$lib/factor/SecondStep.svelte') then step}<step.default />{/await}
  {:else}
    <form onsubmit={signIn} class="space-y-3">
      <TextField id="email" label={text.t.signIn.email} type="email" autocomplete="username" required maxlength={254} bind:value={email} />
      <TextField
        id="password"
        label={text.t.signIn.password}
        type="password"
        autocomplete="current-password"
        required
        maxlength={200}
        bind:value={password}
      />
      {#if problem}<p role="alert" class="border-rust bg-rust-tint text-rust border-l-4 px-3 py-2">{problem}</p>{/if}
      {#if refused && !problem}<p role="alert" class="border-rust bg-rust-tint text-rust border-l-4 px-3 py-2">
          {text.t.problems[refused] ?? text.t.problems['issuer-failed']}
        </p>{/if}
      <Button type="submit" look="primary" disabled={signingIn.isPending}>{text.t.signIn.act}</Button>
      {#if ways.data?.openId}
        <p class="pt-3">
          <a class="link" rel="external" href="/api/session/openid?to={encodeURIComponent(to)}"
            >{text.t.signIn.elsewhere(ways.data.openId)}</a
          >
        </p>
      {/if}
    </form>
  {/if}
</div>

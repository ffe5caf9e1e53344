<script lang="ts">
  import { api, ApiProblem, data } from '$lib/api/client';
  import { goto } from '$app/navigation';
  import { session } from '$lib/api/session.svelte';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Mark from '$lib/ui/Mark.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { createMutation } from '@tanstack/svelte-query';

  let form = $state({
    token: '',
    firmName: '',
    currency: 'EUR',
    timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
    name: '',
    email: '',
    password: ''
  });
  let problem = $state<unknown>();
  const error = (pointer: string) => (problem instanceof ApiProblem ? text.problem(problem.at(pointer)) : undefined);

  const creating = createMutation(() => ({
    mutationFn: async () => {
      await data(api.POST('/api/first-run', { body: form }));
      // Where signing in leads to, which is one step and not two.
      await goto('/first-run?to=/setup', { replaceState: true, keepFocus: true });
      await session.load();
      await session.signIn(form.email.trim(), form.password);
    },
    onError: (e) => {
      problem = e;
    }
  }));
  function create(event: SubmitEvent) {
    event.preventDefault();
    problem = undefined;
    creating.mutate();
  }
</script>

<svelte:head><title>{text.t.firstRun.title} · Fid</title></svelte:head>

<div class="mx-auto max-w-xl px-5 pt-[8dvh] pb-10">
  <p class="font-display flex items-center gap-2 text-2xl font-bold"><Mark />Fid</p>
  <h1 class="border-ink mt-6 border-t-2 pt-4 text-xl">{text.t.firstRun.title}</h1>
  <p class="text-soft mt-1 mb-5">{text.t.firstRun.intro}</p>
  <form onsubmit={create} class="grid gap-x-6 gap-y-3 sm:grid-cols-2" novalidate>
    <div class="sm:col-span-2">
      <TextField id="token" label={text.t.firstRun.token} autocomplete="off" bind:value={form.token} error={error('/token')} />
    </div>
    <div class="sm:col-span-2">
      <TextField id="firm" label={text.t.firstRun.firm} autocomplete="organization" bind:value={form.firmName} error={error('/firmName')} />
    </div>
    <TextField id="currency" label={text.t.firstRun.currency} bind:value={form.currency} error={error('/currency')} />
    <TextField id="zone" label={text.t.firstRun.timeZone} bind:value={form.timeZone} error={error('/timeZone')} />
    <TextField id="name" label={text.t.firstRun.name} autocomplete="name" bind:value={form.name} error={error('/name')} />
    <TextField
      id="email"
      label={text.t.firstRun.email}
      type="email"
      autocomplete="username"
      bind:value={form.email}
      error={error('/email')}
    />
    <TextField
      id="password"
      label={text.t.firstRun.password}
      type="password"
      autocomplete="new-password"
      note={text.t.firstRun.passwordNote}
      bind:value={form.password}
      error={error('/password')}
    />
    <div class="sm:col-span-2">
      {#if problem}<p role="alert" class="border-rust bg-rust-tint text-rust mb-3 border-l-4 px-3 py-2">
          {problem instanceof ApiProblem && problem.errors.length > 0
            ? text.t.common.notRight(problem.errors.length)
            : text.failure(problem)}
        </p>{/if}
      <Button type="submit" look="primary" disabled={creating.isPending}>{text.t.firstRun.act}</Button>
    </div>
  </form>
</div>

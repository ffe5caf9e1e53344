<script lang="ts">
  import '../app.css';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { ApiProblem, onProveAgain } from '$lib/api/client';
  import { listen } from '$lib/live/live';
  import { session } from '$lib/api/session.svelte';
  import { keys } from '$lib/keys/keys.svelte';
  import { text } from '$lib/text/index.svelte';
  import { language } from '$lib/text/language.svelte';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { MutationCache, QueryCache, QueryClient, QueryClientProvider } from '@tanstack/svelte-query';
  import type { Component } from 'svelte';
  import { Toaster } from 'svelte-sonner';
  import TopBar from './TopBar.svelte';

  let { children } = $props();

  const onError = (error: Error) => {
    if (error instanceof ApiProblem && error.status === 401) session.forget();
    // A role was given meanwhile that asks for a second factor.
    if (error instanceof ApiProblem && error.code === 'second-factor-needed') void session.load();
  };
  const client = new QueryClient({
    queryCache: new QueryCache({ onError }),
    mutationCache: new MutationCache({ onError }),
    defaultOptions: {
      queries: {
        retry: (n, e) => n < 2 && !(e instanceof ApiProblem && e.status >= 400 && e.status < 500),
        staleTime: 5_000,
        // Told only of what was read so far, a screen that reads one answer after another would miss the second.
        notifyOnChangeProps: 'all'
      },
      // Without a connection a change fails, and is told; it does not wait unseen.
      mutations: { networkMode: 'always' }
    }
  });

  const open = ['/sign-in', '/first-run'];
  // For whoever has the link, signed in or not.
  const forAnybody = ['/invitation'];
  let failure = $state<unknown>();
  let begun = $state(false);
  let showKeys = $state(false);
  // Fetched when first wanted: neither is part of the first view.
  let GoTo = $state<Component<{ open: boolean }>>();
  let going = $state(false);

  async function begin() {
    failure = undefined;
    try {
      await session.once();
      await language.follow();
      begun = true;
    } catch (e) {
      failure = e;
    }
  }
  void begin();

  // Asked for once, however many requests wait for it.
  let ProveAgain = $state<Component<{ onanswer: (proved: boolean) => void }>>();
  let proving = $state(false);
  let waiting: ((proved: boolean) => void)[] = [];
  function answer(proved: boolean) {
    proving = false;
    for (const go of waiting.splice(0)) go(proved);
  }
  $effect(() =>
    onProveAgain(async () => {
      ProveAgain ??= (await import('$lib/factor/ProveAgain.svelte')).default;
      proving = true;
      return new Promise((go) => waiting.push(go));
    })
  );

  // Fetched when asked for, so that the first load is without.
  let KeyList = $state<Component<{ open: boolean }>>();
  async function listKeys() {
    KeyList ??= (await import('./KeyList.svelte')).default;
    showKeys = true;
  }

  async function goAnywhere() {
    GoTo ??= (await import('$lib/goto/GoTo.svelte')).default;
    going = true;
  }

  $effect(() => {
    if (!session.known) return;
    const here = page.url.pathname;
    if (forAnybody.includes(here)) return;
    if (!session.firm && here !== '/first-run') void goto('/first-run', { replaceState: true });
    else if (session.firm && !session.user && here !== '/sign-in')
      void goto(`/sign-in?to=${encodeURIComponent(here + page.url.search)}`, { replaceState: true });
    else if (session.user && (here === '/' || open.includes(here))) {
      const wanted = page.url.searchParams.get('to');
      void goto(wanted?.startsWith('/') && !wanted.startsWith('//') && wanted !== '/' ? wanted : session.home, { replaceState: true });
    }
  });
  $effect(() => (session.user?.id ? listen(client) : undefined));
  $effect(() => {
    void language.follow();
    document.documentElement.lang = language.spoken;
  });
  $effect(() =>
    keys.use(() =>
      session.user
        ? [
            { key: 'Ctrl+k', label: text.t.keys.goTo, run: goAnywhere, whileTyping: true },
            { key: '?', label: text.t.keys.list, run: listKeys },
            // Where "?" is typed with Shift, the key event says so by itself; this is for layouts that do not.
            { key: 'F1', run: listKeys, whileTyping: true }
          ]
        : []
    )
  );
</script>

<svelte:window onkeydown={(e) => keys.handle(e)} />

<QueryClientProvider {client}>
  {#if failure}
    <Waiting error={failure} retry={begin} />
  {:else if session.known && begun}
    {#if session.user}
      <a href="#content" class="focus:bg-sheet sr-only focus:not-sr-only focus:absolute focus:z-50 focus:p-2">{text.t.top.skip}</a>
      {#if session.viewedBy}
        <p class="bg-ochre-tint border-ochre flex flex-wrap items-baseline justify-center gap-x-4 border-b-2 px-4 py-1.5" role="status">
          <strong>{text.t.top.viewingAs(session.user.name)}</strong>
          <button type="button" class="link font-semibold" onclick={() => void session.backToOneself()}>{text.t.top.backToYourself}</button>
        </p>
      {/if}
      <TopBar {goAnywhere} showKeys={listKeys} />
    {/if}
    {#if session.user || [...open, ...forAnybody].includes(page.url.pathname)}
      <main id="content" tabindex="-1" class="outline-none">{@render children()}</main>
    {/if}
    {#if proving && ProveAgain}<ProveAgain onanswer={answer} />{/if}
    {#if GoTo}<GoTo bind:open={going} />{/if}
    {#if showKeys && KeyList}<KeyList bind:open={showKeys} />{/if}
  {/if}
  <Toaster
    containerAriaLabel={text.t.top.messages}
    position="bottom-left"
    offset="6rem"
    mobileOffset="7rem"
    toastOptions={{
      unstyled: true,
      classes: {
        toast: 'font-sans flex w-full items-center gap-4 rounded border border-ink bg-sheet px-4 py-2.5 text-sm text-ink shadow-lg',
        actionButton: 'ml-auto font-semibold underline underline-offset-2 cursor-pointer',
        error: 'border-rust text-rust'
      }
    }}
  />
</QueryClientProvider>

<script lang="ts">
  import { page } from '$app/state';
  import { session } from '$lib/api/session.svelte';
  import { text } from '$lib/text/index.svelte';
  import Key from '$lib/ui/Key.svelte';
  import Mark from '$lib/ui/Mark.svelte';

  import { waitingQuery } from '$lib/hires/queries';
  import { waitingQuery as requestsQuery } from '$lib/requests/queries';
  import { createQuery } from '@tanstack/svelte-query';

  let { goAnywhere, showKeys }: { goAnywhere: () => void; showKeys: () => void } = $props();
  const intake = createQuery(() => waitingQuery(session.may('edit candidate')));
  const waiting = $derived(intake.data ?? 0);
  const requests = createQuery(() => requestsQuery());
  const toDecide = $derived(requests.data?.toDecide.length ?? 0);
  let you = $state<HTMLDetailsElement>();

  const places = $derived([
    ...(session.may('see hire') ? [{ href: '/arrivals', name: text.t.places.arrivals, also: '/hires' }] : []),
    { href: '/tasks', name: text.t.places.tasks, also: undefined },
    { href: '/waiting', name: text.t.places.waiting, also: undefined },
    ...(session.may('see people') ? [{ href: '/people', name: text.t.places.people, also: undefined }] : []),
    ...(session.may('see template') ? [{ href: '/templates', name: text.t.places.templates, also: undefined }] : []),
    ...(session.may('edit fields') ? [{ href: '/fields', name: text.t.places.fields, also: undefined }] : []),
    ...(session.may('see list') ? [{ href: '/lists', name: text.t.places.lists, also: '/setup' }] : []),
    ...(session.exchanges ? [{ href: '/exchange', name: text.t.places.exchange, also: undefined }] : []),
    ...(session.administers ? [{ href: '/admin', name: text.t.places.admin, also: undefined }] : [])
  ]);
  const isHere = (place: { href: string; also: string | undefined }) =>
    page.url.pathname.startsWith(place.href) || (place.also !== undefined && page.url.pathname.startsWith(place.also));
  const shortName = $derived.by(() => {
    const words = (session.user?.name ?? '').split(' ');
    return words.length > 1 ? `${words[0]} ${words.at(-1)![0]}.` : words[0];
  });
</script>

<header class="border-ink border-b-2">
  <div class="page flex flex-wrap items-center gap-x-6 gap-y-1 py-2">
    <a href={session.home} class="font-display flex items-center gap-2 text-xl font-bold"><Mark />Fid</a>
    <nav aria-label={text.t.top.main} class="order-last -mb-2.5 flex w-full flex-wrap gap-x-6 sm:order-none sm:w-auto">
      {#each places as place (place.href)}
        <a
          href={place.href}
          aria-current={isHere(place) ? 'page' : undefined}
          class="border-b-4 py-2 text-sm font-semibold {isHere(place)
            ? 'border-sea text-ink'
            : 'text-soft hover:text-ink border-transparent'}"
          >{place.name}{#if place.href === '/exchange' && waiting > 0}<span class="text-ochre ml-1 text-xs" aria-hidden="true"
              >{waiting}</span
            ><span class="sr-only">, {text.t.top.fromRecruiting(waiting)}</span>{/if}{#if place.href === '/waiting' && toDecide > 0}<span
              class="text-ochre ml-1 text-xs"
              aria-hidden="true">{toDecide}</span
            ><span class="sr-only">, {text.t.top.toDecide(toDecide)}</span>{/if}</a
        >
      {/each}
    </nav>
    <div class="ml-auto flex items-center gap-4">
      <button
        type="button"
        onclick={goAnywhere}
        aria-keyshortcuts="Control+K"
        class="border-rule bg-sheet text-soft flex min-h-8 items-center justify-between rounded border px-3 text-left md:w-52"
        >{text.t.top.goTo}<Key name="Ctrl+k" /></button
      >
      <span class="text-soft hidden lg:inline">{session.firm?.name}</span>
      <details bind:this={you} class="relative">
        <summary class="cursor-pointer list-none py-1 font-semibold">{shortName}<span class="sr-only"> – {text.t.top.you}</span></summary>
        <div class="border-ink bg-sheet absolute right-0 z-30 mt-1 w-56 rounded border py-2 shadow-lg">
          <p class="text-soft px-4 pb-2 text-xs">{session.user?.email}<br />{session.firm?.name}</p>
          {#snippet act(label: string, run: () => void)}
            <button
              type="button"
              class="hover:bg-band block w-full px-4 py-1.5 text-left"
              onclick={() => {
                you!.open = false;
                run();
              }}>{label}</button
            >
          {/snippet}
          {#if session.user?.ownRecord}
            <a class="hover:bg-band block w-full px-4 py-1.5" href="/people/{session.user.ownRecord}" onclick={() => (you!.open = false)}
              >{text.t.top.ownRecord}</a
            >
          {/if}
          <a class="hover:bg-band block w-full px-4 py-1.5" href="/account" onclick={() => (you!.open = false)}>{text.t.top.account}</a>
          {@render act(text.t.top.language, () => void session.speak(text.language === 'de' ? 'en' : 'de'))}
          {@render act(text.t.top.keys, showKeys)}
          {@render act(text.t.top.signOut, () => void session.signOut())}
        </div>
      </details>
    </div>
  </div>
</header>

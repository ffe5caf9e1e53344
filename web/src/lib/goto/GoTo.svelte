<script lang="ts">
  import { goto } from '$app/navigation';
  import { api, data, type Api } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { fits } from '$lib/text/fits';
  import { text } from '$lib/text/index.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import { settled } from '$lib/ui/settled.svelte';
  import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
  import { Command } from 'bits-ui';
  import { peopleKeys } from '$lib/people/queries';

  /** To anything by name: people, hires, templates, places. */
  let { open = $bindable() }: { open: boolean } = $props();
  let typed = $state('');

  const asked = settled(() => typed.trim());
  const found = createQuery(() => ({
    queryKey: peopleKeys.goTo(asked.current),
    queryFn: ({ signal }) => data(api.GET('/api/goto', { params: { query: { q: asked.current } }, signal })),
    enabled: open && asked.current !== '',
    placeholderData: keepPreviousData
  }));
  const isAnswered = $derived(asked.current === typed.trim() && !found.isPlaceholderData);
  const places = $derived(
    [
      ...(session.may('see hire') ? [{ id: '/arrivals', title: text.t.places.arrivals }] : []),
      { id: '/tasks', title: text.t.places.tasks },
      ...(session.may('see people') ? [{ id: '/people', title: text.t.places.people }] : []),
      ...(session.may('see template') ? [{ id: '/templates', title: text.t.places.templates }] : []),
      ...(session.may('see list') ? [{ id: '/lists', title: text.t.places.lists }] : []),
      ...(session.may('edit fields') ? [{ id: '/fields', title: text.t.places.fields }] : []),
      ...(session.exchanges ? [{ id: '/exchange', title: text.t.places.exchange }] : []),
      ...(session.administers ? [{ id: '/admin', title: text.t.places.admin }] : []),
      { id: '/account', title: text.t.top.account }
    ].filter((p) => fits(p.title, typed))
  );
  const groups = $derived.by(() => {
    // While the answer to what was just typed is on its way, what was found before counts only where it still fits.
    const results = typed.trim() === '' ? [] : (found.data ?? []).filter((r) => isAnswered || fits(r.title, typed));
    const of = (kind: Api['FoundKind']) => results.filter((r) => r.kind === kind);
    return [
      { name: text.t.goTo.kinds.hire, entries: of('hire').map((r) => ({ ...r, href: `/hires/${r.id}/checklist` })) },
      { name: text.t.goTo.kinds.person, entries: of('person').map((r) => ({ ...r, href: `/people/${r.id}` })) },
      { name: text.t.goTo.kinds.template, entries: of('template').map((r) => ({ ...r, href: `/templates/${r.id}` })) },
      { name: text.t.goTo.kinds.list, entries: of('list').map((r) => ({ ...r, href: `/lists/${r.id}` })) },
      { name: text.t.goTo.kinds.place, entries: places.map((p) => ({ ...p, detail: null, href: p.id })) }
    ].filter((g) => g.entries.length > 0);
  });

  // Enter pressed before the answer is there is not lost: it goes to the first of what comes for the same words.
  let entered = $state('');
  $effect(() => {
    const first = groups[0]?.entries[0];
    if (entered === '' || entered !== typed.trim() || asked.current !== entered || found.isFetching) return;
    entered = '';
    if (first) go(first.href);
  });

  // It opens empty, however it was left the last time.
  $effect(() => {
    if (!open) typed = '';
  });

  function go(href: string) {
    open = false;
    typed = '';
    void goto(href);
  }
</script>

<Dialog bind:open title={text.t.goTo.title} quiet place="top" focus="#go-to">
  <Command.Root shouldFilter={false} label={text.t.goTo.title}>
    <Command.Input
      id="go-to"
      bind:value={typed}
      dir="auto"
      placeholder={text.t.goTo.hint}
      aria-label={text.t.goTo.hint}
      onkeydown={(e) => {
        entered = e.key === 'Enter' && groups.length === 0 ? typed.trim() : '';
        if (entered !== '') void asked.updateImmediately();
      }}
      class="border-ink w-full border-b bg-transparent px-5 py-3 text-lg outline-none"
    />
    <Command.List class="max-h-[55dvh] overflow-y-auto py-2" aria-label={text.t.goTo.title}>
      <Command.Viewport>
        {#each groups as group (group.name)}
          <Command.Group value={group.name}>
            <Command.GroupHeading class="text-2xs text-soft px-5 pt-2 pb-1 font-semibold">{group.name}</Command.GroupHeading>
            <Command.GroupItems>
              {#each group.entries as entry (entry.href)}
                <Command.Item value={entry.href} onSelect={() => go(entry.href)} class="data-selected:bg-sea-tint px-5 py-1.5">
                  <bdi class="font-semibold">{entry.title}</bdi>
                  {#if entry.detail}<span class="text-soft text-xs"> {entry.detail}</span>{/if}
                </Command.Item>
              {/each}
            </Command.GroupItems>
          </Command.Group>
        {:else}
          <p class="text-soft px-5 py-2">{text.t.goTo.none(typed.trim())}</p>
        {/each}
      </Command.Viewport>
    </Command.List>
  </Command.Root>
</Dialog>

<script lang="ts">
  import { goto } from '$app/navigation';
  import { session } from '$lib/api/session.svelte';
  import { keys } from '$lib/keys/keys.svelte';
  import { Deciding } from '$lib/requests/deciding.svelte';
  import { waitingQuery } from '$lib/requests/queries';
  import Request from '$lib/requests/Request.svelte';
  import { words } from '$lib/requests/words';
  import { text } from '$lib/text/index.svelte';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { tick } from 'svelte';

  /** What waits for the user's word, decided one after the other; and what became of what they asked for. */
  const requests = createQuery(() => waitingQuery());
  const deciding = new Deciding(useQueryClient());
  const w = $derived(words());
  const groups = $derived([
    { name: w.toDecide, requests: requests.data?.toDecide ?? [] },
    { name: w.asked, requests: requests.data?.asked ?? [] }
  ]);
  const all = $derived(groups.flatMap((g) => g.requests));
  let selected = $state<string>();
  const chosen = $derived(all.find((r) => r.id === selected));
  const own = $derived(groups[1]!.requests.filter((r) => r.state === 'waiting').length);

  function select(id: string) {
    if (id !== selected) deciding.forget();
    selected = id;
  }
  async function focus(id: string) {
    select(id);
    await tick();
    document.querySelector<HTMLElement>(`[data-id="${id}"]`)?.focus();
  }
  function step(by: number) {
    const at = all.findIndex((r) => r.id === selected);
    const next = all[at < 0 ? (by > 0 ? 0 : all.length - 1) : Math.min(Math.max(at + by, 0), all.length - 1)];
    if (next) void focus(next.id);
  }
  // With the word said, the next one is at hand.
  async function decide(word: 'agree' | 'refuse') {
    if (!chosen) return;
    const at = all.indexOf(chosen);
    if (word === 'refuse' && !deciding.comment.trim()) {
      deciding.refusing = true;
      document.getElementById('request-comment')?.focus();
      return;
    }
    if (!(await deciding.say(chosen, word))) return;
    await tick();
    const next = groups[0]!.requests[Math.min(at, groups[0]!.requests.length - 1)];
    if (next) void focus(next.id);
  }
  $effect(() =>
    keys.use(() => [
      { key: 'ArrowDown', label: text.t.keys.down, run: () => step(1) },
      { key: 'ArrowUp', label: text.t.keys.up, run: () => step(-1) },
      ...(chosen?.mayDecide
        ? [
            { key: 'a', label: w.agree, run: () => void decide('agree') },
            { key: 'n', label: w.refuse, run: () => void decide('refuse') },
            { key: 'h', label: w.handOn, run: () => (deciding.handing = true) }
          ]
        : []),
      ...(chosen ? [{ key: 'c', label: w.comment, run: () => document.getElementById('request-comment')?.focus() }] : []),
      { key: 'Escape', run: () => (selected ? (selected = undefined) : void goto(session.home)) }
    ])
  );
</script>

<svelte:head><title>{text.t.places.waiting} · Fid</title></svelte:head>

{#if !requests.data}
  <Waiting error={requests.error} retry={() => requests.refetch()} />
{:else}
  <div class="page pb-8">
    <h1 class="pt-5 pb-3 text-2xl leading-tight">
      {w.news(groups[0]!.requests.length)}
      {#if own > 0}<span class="text-ochre">{w.own(own)}</span>{/if}
    </h1>
    {#if all.length === 0}
      <div class="border-ink max-w-lg border-t pt-4">
        <h2 class="text-lg">{w.emptyTitle}</h2>
        <p class="text-soft mt-1">{w.empty}</p>
      </div>
    {/if}
    {#each groups as group (group.name)}
      {#if group.requests.length > 0}
        <section aria-label={group.name}>
          <h2 class="border-ink border-b pt-4 pb-1.5 text-base">
            {group.name} <span class="text-soft font-sans text-xs font-normal">{group.requests.length}</span>
          </h2>
          {#each group.requests as request (request.id)}
            <Request {request} {deciding} open={selected === request.id} onopen={() => select(request.id)} />
          {/each}
        </section>
      {/if}
    {/each}
  </div>
{/if}

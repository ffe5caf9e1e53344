<script lang="ts">
  import { api, data, type Api } from '$lib/api/client';
  import Parts from '$lib/admin/Parts.svelte';
  import { showMoment, words } from '$lib/admin/words';
  import Button from '$lib/ui/Button.svelte';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { createInfiniteQuery } from '@tanstack/svelte-query';
  import { adminKeys } from '$lib/admin/queries';

  /** Has anything happened that should not have: who came in, who was refused, what left? */
  const w = $derived(words().trail);
  let action = $state('');
  const trail = createInfiniteQuery(() => ({
    queryKey: adminKeys.trail(action),
    initialPageParam: null as number | null,
    queryFn: ({ pageParam }) =>
      data(api.GET('/api/trail', { params: { query: { before: pageParam ?? undefined, action: action || undefined } } })),
    getNextPageParam: (last: Api['TrailPage']) => last.next
  }));
  const entries = $derived(trail.data?.pages.flatMap((p) => p.entries) ?? []);
  const actions = $derived(trail.data?.pages[0]?.actions ?? []);
  const address = (entry: Api['TrailEntry']) => {
    const details = entry.details ? (JSON.parse(entry.details) as { address?: string; opened?: string }) : {};
    return details.address ?? '';
  };
  const about = (entry: Api['TrailEntry']) => {
    const details = entry.details ? (JSON.parse(entry.details) as { opened?: string }) : {};
    return [entry.part, details.opened, entry.why].filter(Boolean).join(' · ');
  };
  const isTrouble = (a: string) => ['session.refused', 'session.slowed', 'access.refused'].includes(a);
</script>

<svelte:head><title>{w.title} · Fid</title></svelte:head>

{#if !trail.data}
  <Waiting error={trail.error} retry={() => trail.refetch()} />
{:else}
  <div class="page pb-10">
    <div class="flex flex-wrap items-end justify-between gap-3 pt-5 pb-3">
      <div>
        <h1 class="text-2xl leading-tight">{w.news}</h1>
        <p class="text-soft">{w.intro}</p>
        <div class="pt-2"><Parts /></div>
      </div>
      <label class="flex items-center gap-2"
        >{w.only}
        <select bind:value={action} class="border-rule bg-sheet min-h-8 rounded border px-2">
          <option value="">{w.all}</option>
          {#each actions as a (a)}<option value={a}>{w.actions[a] ?? a}</option>{/each}
        </select>
      </label>
    </div>
    {#if entries.length === 0}
      <p class="text-soft py-4">{w.empty}</p>
    {:else}
      <!-- svelte-ignore a11y_no_noninteractive_tabindex (it scrolls on narrow screens, so it must be reachable) -->
      <div class="overflow-x-auto" tabindex="0" role="region" aria-label={w.title}>
        <table class="w-full min-w-[40rem] text-left">
          <thead class="border-ink border-b-2">
            <tr
              >{#each [w.when, w.who, w.what, w.about, w.from] as head (head)}<th scope="col" class="py-1.5 pr-4 font-semibold">{head}</th
                >{/each}</tr
            >
          </thead>
          <tbody class="divide-rule divide-y">
            {#each entries as e (e.position)}
              <tr>
                <td class="py-1.5 pr-4 whitespace-nowrap">{showMoment(e.at)}</td>
                <td class="py-1.5 pr-4">{e.by || w.nobody}</td>
                <td class="py-1.5 pr-4 {isTrouble(e.action) ? 'text-rust font-semibold' : ''}">{w.actions[e.action] ?? e.action}</td>
                <td class="text-soft py-1.5 pr-4 break-words">{about(e)}</td>
                <td class="text-soft py-1.5 whitespace-nowrap">{address(e)}</td>
              </tr>
            {/each}
          </tbody>
        </table>
      </div>
      {#if trail.hasNextPage}<div class="pt-4"><Button onclick={() => void trail.fetchNextPage()}>{w.more}</Button></div>{/if}
    {/if}
  </div>
{/if}

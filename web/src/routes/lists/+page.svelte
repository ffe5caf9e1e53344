<script lang="ts">
  import { session } from '$lib/api/session.svelte';
  import { listsQuery } from '$lib/lists/queries';
  import { words } from '$lib/lists/words';
  import { text } from '$lib/text/index.svelte';
  import Waiting from '$lib/ui/Waiting.svelte';

  const lists = listsQuery();
  const w = $derived(words());
  const order = ['places', 'work', 'pay', 'time', 'things', 'words'];
  const groups = $derived(order.map((g) => ({ key: g, name: w.groups[g]!, lists: (lists.data ?? []).filter((l) => l.group === g) })));
</script>

<svelte:head><title>{w.title} · Fid</title></svelte:head>

{#if !lists.data}
  <Waiting error={lists.error} retry={() => lists.refetch()} />
{:else}
  <div class="page pb-8">
    <div class="flex flex-wrap items-baseline justify-between gap-3 pt-5 pb-1">
      <h1 class="text-2xl">{w.title}</h1>
      {#if session.may('edit list')}<a class="link font-semibold" href="/setup">{w.setup}</a>{/if}
    </div>
    <p class="text-soft">{w.intro}</p>
    <div class="gap-x-12 lg:columns-2">
      {#each groups as group (group.key)}
        <section class="break-inside-avoid">
          <h2 class="border-ink border-b pt-5 pb-1.5 text-base">{group.name}</h2>
          <ul>
            {#each group.lists as list (list.key)}
              <li class="border-rule hover:bg-sheet border-b">
                <a href="/lists/{list.key}" class="grid grid-cols-[1fr_auto] items-baseline gap-x-4 px-2 py-2">
                  <span class="font-semibold">{list.label[text.language]}</span>
                  <span class="text-right text-xs {list.count === 0 && list.needed ? 'text-ochre font-semibold' : 'text-soft'}"
                    >{list.count === 0 && list.needed ? w.neededFirst : w.entries(list.count)}{list.retired > 0
                      ? `, ${w.retiredCount(list.retired)}`
                      : ''}</span
                  >
                  <span class="text-soft col-span-full text-xs">{list.about[text.language]}</span>
                </a>
              </li>
            {/each}
          </ul>
        </section>
      {/each}
    </div>
  </div>
{/if}

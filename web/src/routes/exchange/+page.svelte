<script lang="ts">
  import { goto } from '$app/navigation';
  import { api, data } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { underWay } from '$lib/exchange/upload';
  import { words } from '$lib/exchange/words';
  import { words as hireWords } from '$lib/hires/words';
  import { words as mailWords } from '$lib/mail/words';
  import { keys } from '$lib/keys/keys.svelte';
  import { targetsQuery } from '$lib/exchange/queries';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { createQuery } from '@tanstack/svelte-query';
  import { importKeys } from '$lib/exchange/queries';

  const imports = createQuery(() => ({ queryKey: importKeys.list, queryFn: () => data(api.GET('/api/imports')) }));
  const targets = targetsQuery();
  const w = $derived(words());
  const listName = (key: string) => targets.data?.find((l) => l.key === key)?.label[text.language] ?? key;
  $effect(() => keys.use(() => [{ key: 'a', label: w.fill, run: () => void goto('/exchange/new') }]));
</script>

<svelte:head><title>{w.title} · Fid</title></svelte:head>

{#if !imports.data}
  <Waiting error={imports.error} retry={() => imports.refetch()} />
{:else}
  <div class="page pb-8">
    <div class="flex flex-wrap items-center justify-between gap-3 pt-5 pb-1">
      <h1 class="text-2xl">{w.title}</h1>
      <div class="flex items-center gap-4">
        {#if session.may('edit task')}<a class="link" href="/exchange/mail">{mailWords().link}</a>{/if}
        <a class="link" href="/exchange/intake">{hireWords().intake.link}</a><Button
          look="primary"
          key="a"
          onclick={() => goto('/exchange/new')}>{w.fill}</Button
        >
      </div>
    </div>
    <p class="text-soft pb-3">{w.intro}</p>
    <!-- svelte-ignore a11y_no_noninteractive_tabindex (it scrolls on narrow screens, so it must be reachable) -->
    <div class="overflow-x-auto" tabindex="0" role="region" aria-label={w.title}>
      <table class="narrow border-ink w-full border-t text-left">
        <thead class="text-soft text-xs">
          <tr
            >{#each [w.columns.when, w.columns.file, w.columns.list, w.columns.rows, w.columns.state, w.columns.by] as column (column)}<th
                class="px-2 py-1.5 font-normal whitespace-nowrap">{column}</th
              >{/each}</tr
          >
        </thead>
        <tbody>
          {#each imports.data as run (run.id)}
            <tr class="border-rule hover:bg-sheet border-t">
              <td class="px-2 py-1.5 whitespace-nowrap">{text.day(run.at.slice(0, 10))}</td>
              <td class="px-2 font-semibold"><a class="hover:underline" href="/exchange/{run.id}"><bdi>{run.fileName}</bdi></a></td>
              <td class="px-2">{listName(run.list)}</td>
              <td class="px-2 whitespace-nowrap">{underWay(run) ? w.progress(run.done, run.rows) : text.number(run.rows)}</td>
              <td class="px-2 whitespace-nowrap"
                >{w.states[run.state]}{#if run.state === 'ready' && run.wrong > 0}, <strong class="text-rust"
                    >{run.wrong} {w.outcomes.wrong}</strong
                  >{/if}</td
              >
              <td class="text-soft px-2">{run.by}</td>
            </tr>
          {:else}
            <tr><td colspan="6" class="text-soft px-2 py-4">{w.none}</td></tr>
          {/each}
        </tbody>
      </table>
    </div>
  </div>
{/if}

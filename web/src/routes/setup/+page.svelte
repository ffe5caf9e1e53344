<script lang="ts">
  import Colleagues from '$lib/admin/Colleagues.svelte';
  import { api, data } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { listsQuery, listKeys } from '$lib/lists/queries';
  import Settings from '$lib/lists/Settings.svelte';
  import Starter from '$lib/lists/Starter.svelte';
  import { words } from '$lib/lists/words';
  import { text } from '$lib/text/index.svelte';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { createQuery } from '@tanstack/svelte-query';

  const lists = listsQuery();
  const setup = createQuery(() => ({ queryKey: listKeys.setup, queryFn: () => data(api.GET('/api/setup')) }));
  const w = $derived(words());
  const rows = $derived(
    (setup.data?.lists ?? []).map((s) => {
      const list = lists.data?.find((l) => l.key === s.key);
      return {
        setup: s,
        list,
        label: list?.label[text.language] ?? w.setupPage.templates,
        about: list?.about[text.language] ?? w.setupPage.templatesAbout
      };
    })
  );
</script>

<svelte:head><title>{w.setupPage.title} · Fid</title></svelte:head>

{#if !setup.data || !lists.data}
  <Waiting error={setup.error ?? lists.error} retry={() => setup.refetch()} />
{:else}
  <div class="page max-w-4xl pb-10">
    <div class="pt-5 pb-3">
      <h1 class="text-2xl">{w.setupPage.title}</h1>
      {#if setup.data.missing.length === 0}
        <p class="pt-1">{w.setupPage.ready} <a class="link font-semibold" href="/arrivals#new">{w.setupPage.openFirst}</a></p>
      {:else}
        <p class="text-ochre pt-1 font-semibold">{w.setupPage.missing(setup.data.missing.length)}</p>
        <p class="text-soft text-xs">
          {#each rows.filter((r) => setup.data.missing.includes(r.setup.key)) as row, i (row.setup.key)}{i > 0 ? ' · ' : ''}<a
              class="link"
              href="#{row.setup.key}">{row.label}</a
            >{/each}
        </p>
      {/if}
    </div>
    <ul class="border-ink border-t">
      {#each rows as row (row.setup.key)}
        <li id={row.setup.key} class="border-rule border-b py-2.5">
          <Starter
            row={row.setup}
            list={row.list}
            label={row.label}
            about={row.about}
            country={setup.data.country}
            countries={row.setup.key === 'calendars' ? setup.data.countries : []}
          />
        </li>
      {/each}
    </ul>
    <Settings settings={setup.data.settings} />
    {#if session.may('edit account')}<Colleagues />{/if}
  </div>
{/if}

<script lang="ts">
  import { api, data } from '$lib/api/client';
  import { fieldLabel } from '$lib/fields/labels.svelte';
  import { text } from '$lib/text/index.svelte';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { createQuery } from '@tanstack/svelte-query';

  const templates = createQuery(() => ({ queryKey: ['templates'], queryFn: () => data(api.GET('/api/templates')) }));
  const t = $derived(text.t.templates);
  const groups = $derived([
    { name: t.roles, rows: (templates.data ?? []).filter((r) => !r.isAddOn) },
    { name: t.addOns, rows: (templates.data ?? []).filter((r) => r.isAddOn) }
  ]);
</script>

<svelte:head><title>{t.title} · Fid</title></svelte:head>

{#if !templates.data}
  <Waiting error={templates.error} retry={() => templates.refetch()} />
{:else}
  <div class="page pb-8">
    <h1 class="pt-5 pb-1 text-2xl">{t.title}</h1>
    {#each groups as group (group.name)}
      <h2 class="border-ink border-b pt-4 pb-1.5 text-base">{group.name}</h2>
      <ul>
        {#each group.rows as row (row.code)}
          <li class="border-rule flex flex-wrap items-baseline gap-x-6 border-b px-2 py-2">
            <a href="/templates/{row.code}" class="w-44 font-semibold hover:underline">{row.name}</a>
            <span class="text-soft w-20 text-xs">{t.version(row.version)}</span>
            <span class="text-soft min-w-44 flex-1 text-xs">
              {#if row.isAddOn}{t.applies(fieldLabel(row.whenField ?? ''), row.whenValue ?? '')}{:else if row.buildsOn}{t.builds(
                  row.buildsOn
                )}{:else if !row.opens}{t.onlyBuiltOn}{/if}
            </span>
            {#if row.opens}<span class="text-xs">{t.opened(row.opened)}, <strong>{t.underWay(row.underWay)}</strong></span>{/if}
          </li>
        {/each}
      </ul>
    {/each}
  </div>
{/if}

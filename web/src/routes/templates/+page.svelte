<script lang="ts">
  import { goto } from '$app/navigation';
  import { api, ApiProblem, data, type Api } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { keys } from '$lib/keys/keys.svelte';
  import ConditionWords from '$lib/templates/ConditionWords.svelte';
  import ImportTemplates from '$lib/templates/ImportTemplates.svelte';
  import Naming from '$lib/templates/Naming.svelte';
  import SharedTasks from '$lib/templates/SharedTasks.svelte';
  import { blank } from '$lib/templates/spec';
  import TemplateMap from '$lib/templates/TemplateMap.svelte';
  import { occasionWords } from '$lib/occasions/words';
  import { words } from '$lib/templates/words';
  import { words as stallWords } from '$lib/stalls/words';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { failed } from '$lib/ui/toast';
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { templateKeys } from '$lib/templates/queries';

  const client = useQueryClient();
  const templates = createQuery(() => ({ queryKey: templateKeys.all, queryFn: () => data(api.GET('/api/templates')) }));
  const w = $derived(words());
  const titleOf = (occasion: Api['Occasion']) =>
    occasion === 'arrival' ? w.roles : occasion === 'payRun' ? w.runs : occasionWords(occasion).all;
  const roles = $derived((templates.data ?? []).filter((r) => !r.isAddOn));
  const addOns = $derived((templates.data ?? []).filter((r) => r.isAddOn));
  let naming = $state(false);
  let makesAddOn = $state(false);
  let importing = $state<Api['TemplateExport']>();

  async function begin(name: string, code: string, occasion: Api['Occasion']) {
    try {
      await data(
        api.PUT('/api/templates/{code}/draft', {
          params: { path: { code } },
          body: { spec: { ...blank(name, makesAddOn, occasion), order: makesAddOn ? Math.max(0, ...addOns.map((a) => a.order)) + 10 : 0 } }
        })
      );
    } catch (e) {
      throw e instanceof ApiProblem ? (text.problem(e.errors[0]) ?? text.failure(e)) : e;
    }
    await client.invalidateQueries({ queryKey: templateKeys.all });
    await goto(`/templates/${code}`);
  }
  function ask(addOn: boolean) {
    makesAddOn = addOn;
    naming = true;
  }
  async function take(files: FileList | null) {
    const first = files?.[0];
    if (!first) return;
    try {
      importing = JSON.parse(await first.text()) as Api['TemplateExport'];
    } catch {
      failed(w.importing.noFile);
    }
  }
  $effect(() => keys.use(() => (session.may('edit template') ? [{ key: 'a', label: w.newTemplate, run: () => ask(false) }] : [])));
</script>

<svelte:head><title>{w.title} · Fid</title></svelte:head>

{#snippet row(r: Api['TemplateRow'])}
  <tr class="border-rule border-b align-baseline {r.retired ? 'text-soft' : ''}">
    <th scope="row" class="py-2 pr-3 pl-2 text-left font-normal">
      <a href="/templates/{r.code}" class="font-semibold hover:underline">{r.name}</a>
      {#if r.retired}<span class="text-soft text-xs"> {w.retired}</span>{/if}
    </th>
    <td class="text-soft pr-3 text-xs whitespace-nowrap"
      >{r.version || w.never}{#if r.hasDraft && r.version > 0}<strong class="text-ochre"> + {w.draft}</strong>{/if}</td
    >
    <td class="text-soft pr-3 text-xs">
      {#if r.isAddOn}<ConditionWords when={r.when} />{:else}{r.buildsOnName ??
          ''}{#if !r.opens && r.version > 0 && !r.retired}{r.buildsOnName ? ', ' : ''}{w.onlyBuiltOn}{/if}{/if}
    </td>
    <td class="pr-3 text-right tabular-nums">{r.opened || ''}</td>
    <td class="pr-3 text-right font-semibold tabular-nums">{r.underWay || ''}</td>
    <td class="text-soft text-xs"
      >{#if r.changedAt}{text.day(r.changedAt.slice(0, 10))}{#if r.changedBy}, {w.by(r.changedBy)}{/if}{/if}</td
    >
  </tr>
{/snippet}

{#snippet table(title: string, rows: Api['TemplateRow'][], addOn: boolean)}
  <h2 class="pt-4 pb-1.5 text-base">{title}</h2>
  <div class="overflow-x-auto">
    <table class="w-full min-w-[38rem] border-collapse">
      <thead>
        <tr class="border-ink text-soft border-b text-left text-xs">
          <th class="w-1/4 py-1 pl-2 font-normal">{w.column.name}</th>
          <th class="font-normal">{w.column.version}</th>
          <th class="w-1/4 font-normal">{addOn ? w.column.applies : w.column.builds}</th>
          <th class="pr-3 text-right font-normal">{w.column.opened}</th>
          <th class="pr-3 text-right font-normal">{w.column.underWay}</th>
          <th class="font-normal">{w.column.changed}</th>
        </tr>
      </thead>
      <tbody>
        {#each rows as r (r.code)}{@render row(r)}{/each}
      </tbody>
    </table>
  </div>
{/snippet}

{#if !templates.data}
  <Waiting error={templates.error} retry={() => templates.refetch()} />
{:else}
  <div class="page pb-8">
    <div class="flex flex-wrap items-end justify-between gap-3 pt-5 pb-2">
      <h1 class="text-2xl leading-tight">{w.news(roles.filter((r) => r.occasion === 'arrival').length, addOns.length)}</h1>
      <div class="flex flex-wrap items-center gap-3">
        {#if session.may('edit task')}<a class="link text-xs" href="/templates/where-it-stalls">{stallWords().link}</a>{/if}
        {#if session.may('edit template')}
          <label class="link cursor-pointer text-xs"
            >{w.importIt}<input
              type="file"
              accept="application/json,.json"
              class="sr-only"
              onchange={async (e) => {
                const input = e.currentTarget;
                await take(input.files);
                // So that the same file, once mended, can be chosen again.
                input.value = '';
              }}
            /></label
          >
          <Button onclick={() => ask(true)}>{w.newAddOn}</Button>
          <Button look="primary" key="a" onclick={() => ask(false)}>{w.newTemplate}</Button>
        {/if}
      </div>
    </div>
    {#if roles.length === 0}
      <p class="text-soft py-6">{w.none}</p>
    {:else}
      <div class="grid gap-x-10 xl:grid-cols-[1fr_auto]">
        <div class="min-w-0">
          {#each ['arrival', 'jobChange', 'leaving', 'payRun'] as const as occasion (occasion)}
            {@const own = roles.filter((r) => r.occasion === occasion)}
            {#if own.length > 0}{@render table(titleOf(occasion), own, false)}{/if}
          {/each}
          {#if addOns.length > 0}{@render table(w.addOns, addOns, true)}{/if}
        </div>
        <div class="min-w-0">
          <h2 class="pt-4 pb-1.5 text-base">{w.map}</h2>
          <TemplateMap rows={roles.filter((r) => !r.retired && r.occasion === 'arrival')} />
        </div>
      </div>
    {/if}
    {#if session.may('edit template')}<SharedTasks />{/if}
  </div>
  {#if naming}
    <Naming
      bind:open={naming}
      title={makesAddOn ? w.naming.addOn : w.naming.title}
      taken={templates.data.map((t) => t.code)}
      asks
      onname={begin}
    />
  {/if}
  {#if importing}<ImportTemplates file={importing} onclose={() => (importing = undefined)} />{/if}
{/if}

<script lang="ts">
  import { download } from '$lib/factor/download';
  import { api, data, type Api } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import DateField from '$lib/ui/DateField.svelte';
  import FooterSheet from '$lib/ui/FooterSheet.svelte';
  import { PEOPLE, rowsOf } from './queries';
  import { words } from './words';

  /** What can be done with an import as it is now. */
  interface Props {
    run: Api['ImportResponse'];
    act: (call: Promise<Api['ImportResponse']>) => Promise<boolean>;
    drop: () => Promise<void>;
    match: (change: Partial<Api['MatchingRequest']>) => void;
  }
  let { run, act, drop, match }: Props = $props();
  const people = $derived(run.list === PEOPLE);
  const rows = $derived(rowsOf(run.list) !== undefined);
  const w = $derived(words());
  const good = $derived(run.new + run.changed);
  const commit = (onlyGood: boolean) =>
    void act(data(api.POST('/api/imports/{id}/commit', { params: { path: { id: run.id } }, body: { onlyGood } })));
</script>

{#snippet rest()}
  {#if run.wrong > 0}
    <a
      class="link self-center text-xs font-semibold"
      download
      href="/api/imports/{run.id}/rest.xlsx?language={text.language}"
      onclick={download}>{w.rest}</a
    >
  {/if}
{/snippet}

{#if run.state === 'ready'}
  <FooterSheet label={run.fileName} tone={run.wrong > 0 ? 'rust' : 'sea'}>
    <div class="min-w-0 flex-1">
      <p class="font-semibold">{good === 0 ? w.nothing : w.summary(run.new, run.changed)}</p>
      {#if run.wrong > 0}<p class="text-rust text-xs font-semibold">{run.wrong} {w.outcomes.wrong}</p>{/if}
    </div>
    {#if (people || rows) && run.changed > 0}
      <div class="w-56">
        <DateField
          id="holds-from"
          label={w.holdsFrom}
          bind:value={() => run.holdsFrom, (on) => on !== run.holdsFrom && match({ holdsFrom: on })}
          note={run.holdsFrom ? '' : w.corrects}
        />
      </div>
    {/if}
    <div class="flex flex-wrap gap-3">
      {@render rest()}
      <Button onclick={drop}>{w.dropIt}</Button>
      {#if run.wrong > 0}
        <Button look="primary" disabled={good === 0 || run.askDates} onclick={() => commit(true)}>{w.commitGood(good)}</Button>
      {:else}
        <Button look="primary" disabled={good === 0 || run.askDates} onclick={() => commit(false)}>{w.commitAll(good)}</Button>
      {/if}
    </div>
  </FooterSheet>
{:else if run.state === 'committed'}
  <FooterSheet label={run.fileName}>
    <div class="min-w-0 flex-1">
      <p class="font-semibold">{people ? w.committedPeople(run.new, run.changed) : w.committed(run.new, run.changed)}</p>
      <p class="text-soft text-xs">{people && run.new > 0 ? w.undoingHires : people || rows ? w.undoingPeople : w.undoing}</p>
    </div>
    <div class="flex flex-wrap gap-3">
      {@render rest()}
      <Button look="danger" onclick={() => act(data(api.POST('/api/imports/{id}/undo', { params: { path: { id: run.id } } })))}
        >{w.undo}</Button
      >
      <a
        class="bg-sea text-on-sea border-sea inline-flex min-h-8 items-center rounded border px-3 text-sm font-semibold"
        href={people && run.new > 0 ? '/arrivals' : people || rows ? '/people' : `/lists/${run.list}`}
        >{people && run.new > 0 ? w.toArrivals : people || rows ? w.toPeople : w.toList}</a
      >
    </div>
  </FooterSheet>
{/if}

<script lang="ts">
  import { beforeNavigate, goto } from '$app/navigation';
  import type { Api } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { keys } from '$lib/keys/keys.svelte';
  import { text } from '$lib/text/index.svelte';
  import { named } from '$lib/text/named';
  import Button from '$lib/ui/Button.svelte';
  import FooterSheet from '$lib/ui/FooterSheet.svelte';
  import { done, failed } from '$lib/ui/toast';
  import { useQueryClient } from '@tanstack/svelte-query';
  import CalendarFile from './CalendarFile.svelte';
  import { EntryEditing } from './editing.svelte';
  import EntryFields from './EntryFields.svelte';
  import EntryHistory from './EntryHistory.svelte';
  import { entryPath, listKeys } from './queries';
  import Retire from './Retire.svelte';
  import { usageText } from './usage';
  import Users from './Users.svelte';
  import CalendarYear from './views/CalendarYear.svelte';
  import PatternWeeks from './views/PatternWeeks.svelte';
  import PayPeriods from './views/PayPeriods.svelte';
  import PaySlip from './views/PaySlip.svelte';
  import { words } from './words';

  /** An entry of a list: its fields, and beside them what it comes to, worked out as one types. */
  let { list, entry }: { list: Api['ListSummary']; entry?: Api['EntryResponse'] } = $props();
  const client = useQueryClient();
  const w = $derived(words());
  // svelte-ignore state_referenced_locally (the screen is made anew for another entry)
  const editing = new EntryEditing(list, entry);
  const views = { calendars: CalendarYear, payGroups: PayPeriods, shiftPatterns: PatternWeeks, payComponents: PaySlip };
  const View = $derived(list.key in views ? views[list.key as keyof typeof views] : undefined);
  const there = $derived(editing.there);
  const dirty = $derived(editing.isNew ? editing.code !== '' || editing.name !== '' : editing.changed.length > 0);
  let retiring = $state(false);
  let showing = $state(false);
  let leaving = false;

  async function save() {
    if (editing.busy || !session.may('edit list')) return;
    const isNew = editing.isNew;
    try {
      const saved = await editing.save();
      await client.invalidateQueries({ queryKey: listKeys.all });
      if (!saved) return focusFirst();
      done(w.saved(saved.name));
      if (isNew) {
        leaving = true;
        await goto(entryPath(list.key, saved.code), { replaceState: true });
      }
    } catch (e) {
      failed(text.failure(e));
    }
  }
  function discard() {
    if (there) return editing.take(editing.theirs ?? there);
    leaving = true;
    void goto(`/lists/${list.key}`);
  }
  function focusFirst() {
    const key = editing.errors[0]?.pointer.split('/').at(-1);
    const field = key ? document.getElementById(`entry-${key}`) : null;
    field?.scrollIntoView({ block: 'center' });
    (field?.matches('input, textarea') ? field : field?.querySelector<HTMLElement>('input, select, button'))?.focus();
  }
  beforeNavigate((navigation) => {
    if (leaving || !dirty) return;
    if (navigation.willUnload || !confirm(w.leave)) navigation.cancel();
  });
  $effect(() =>
    keys.use(() => [
      { key: 'Ctrl+s', label: text.t.keys.save, whileTyping: true, run: () => void save() },
      { key: 'Escape', run: () => void goto(`/lists/${list.key}`) }
    ])
  );
  const label = (key: string) =>
    ({ code: w.code, name: w.name, nameDe: w.nameDe })[key] ?? list.columns.find((c) => c.key === key)?.label[text.language] ?? key;
</script>

<svelte:head><title>{editing.name || w.addTo(list.label[text.language])} · Fid</title></svelte:head>

<div class="page pb-10">
  <p class="pt-4 text-xs">
    <a class="link" href="/lists">{w.title}</a> · <a class="link" href="/lists/{list.key}">{list.label[text.language]}</a>
  </p>
  <div class="border-ink flex flex-wrap items-center justify-between gap-3 border-b pb-3">
    <div>
      <h1 class="text-2xl">
        <bdi>{there ? named(there) : w.addTo(list.label[text.language])}</bdi>
        {#if there?.retired}<span class="text-ochre text-base">({w.retired})</span>{/if}
      </h1>
      {#if there}<p class="text-soft text-xs">
          {w.usedBy}
          {#if there.usage}<button type="button" class="link" onclick={() => (showing = true)}>{usageText(there.usage)}</button
            >{:else}{w.nobody}{/if}
        </p>{/if}
    </div>
    <div class="flex flex-wrap gap-3">
      {#if list.key === 'calendars'}<CalendarFile {editing} />{/if}
      {#if there && !there.retired && session.may('edit list')}<Button onclick={() => (retiring = true)}>{w.retire}</Button>{/if}
      {#if !dirty && session.may('edit list') && !editing.isNew}<Button look="primary" key="Ctrl+s" disabled>{w.save}</Button>{/if}
    </div>
  </div>
  <div class="grid gap-x-10 gap-y-6 pt-4 {View ? 'lg:grid-cols-[minmax(0,1fr)_minmax(0,26rem)] xl:grid-cols-[minmax(0,1fr)_32rem]' : ''}">
    <div class="min-w-0">
      <EntryFields {editing} />
      {#if there}<EntryHistory list={list.key} code={there.code} />{/if}
    </div>
    {#if View}<div class="border-rule min-w-0 lg:border-l lg:pl-6"><View {editing} /></div>{/if}
  </div>
</div>

{#if session.may('edit list') && (dirty || editing.isNew)}
  <FooterSheet label={w.save} tone={editing.errors.length > 0 ? 'rust' : 'sea'}>
    <div class="min-w-0 flex-1 basis-56">
      <p class="font-semibold">{editing.isNew ? w.newOne : w.changes(editing.changed.length)}</p>
      {#if !editing.isNew}<p class="text-soft text-xs">{editing.changed.map(label).join(', ')}</p>{/if}
      {#if editing.theirs}<p role="alert" class="text-rust">{w.stale(text.t.problems['changed-meanwhile']!)}</p>
      {:else if editing.errors.length > 0}
        <div role="alert" class="text-rust">
          <p class="font-semibold">{w.wrong(editing.errors.length)}</p>
          <ul class="text-xs">
            {#each editing.errors as error (error.pointer + error.code)}<li>
                {label(error.pointer.split('/').at(-1)!)}: {text.problem(error)}
              </li>{/each}
          </ul>
        </div>
      {/if}
    </div>
    <div class="flex gap-3">
      <Button onclick={discard}>{w.discard}</Button>
      <Button look="primary" key="Ctrl+s" disabled={editing.busy} onclick={save}>{w.save}</Button>
    </div>
  </FooterSheet>
{/if}
{#if retiring && there}<Retire
    {list}
    entry={there}
    onclose={() => (retiring = false)}
    ondone={() => void goto(`/lists/${list.key}`)}
  />{/if}
{#if showing && there}<Users {list} entry={there} onclose={() => (showing = false)} />{/if}

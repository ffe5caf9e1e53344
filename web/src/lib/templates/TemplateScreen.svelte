<script lang="ts">
  import { goto } from '$app/navigation';
  import { api, data, type Api } from '$lib/api/client';
  import { keys } from '$lib/keys/keys.svelte';
  import { text } from '$lib/text/index.svelte';
  import { named } from '$lib/text/named';
  import Button from '$lib/ui/Button.svelte';
  import { done, failed } from '$lib/ui/toast';
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import About from './About.svelte';
  import { TemplateEditing } from './editing.svelte';
  import EntryRows from './EntryRows.svelte';
  import EntrySheet from './EntrySheet.svelte';
  import Example from './Example.svelte';
  import Naming from './Naming.svelte';
  import Parts from './Parts.svelte';
  import PublishTemplate from './PublishTemplate.svelte';
  import { editingQuery, templateKeys } from './queries';
  import ReadyTasks from './ReadyTasks.svelte';
  import { entriesOf, type ListName } from './spec';
  import TaskRows from './TaskRows.svelte';
  import TaskSheet from './TaskSheet.svelte';
  import { TemplateView } from './templateView.svelte';
  import TemplateVersions from './TemplateVersions.svelte';
  import ValueRows from './ValueRows.svelte';
  import ValueSheet from './ValueSheet.svelte';
  import { words } from './words';

  /** A template on one page: its parts, what they say, and what a hire would get. */
  let { template, mayEdit }: { template: Api['TemplateResponse']; mayEdit: boolean } = $props();
  const client = useQueryClient();
  const w = $derived(words());
  // The page makes this screen anew for another template.
  // svelte-ignore state_referenced_locally
  const editing = new TemplateEditing(template.code);
  const offered = editingQuery();
  const all = createQuery(() => ({ queryKey: templateKeys.all, queryFn: () => data(api.GET('/api/templates')) }));
  let taken: unknown;
  $effect(() => {
    // What is being edited is not thrown away for an answer of its own save.
    if (template === taken || (editing.isDraft && template.draft && taken !== undefined)) return;
    taken = template;
    editing.take(template);
  });

  const view = new TemplateView(editing, () => offered.data?.fields ?? []);
  let publishing = $state(false);
  let versions = $state(false);
  let copying = $state(false);
  let library = $state(false);
  let values = $state<ValueRows>();
  let tasks = $state<TaskRows>();
  let entries = $state<EntryRows>();
  const looks = $derived(view.looks);
  const stages = $derived((offered.data?.stages ?? []).filter((s) => s.occasion === (editing.spec.occasion ?? 'arrival')));
  const below = $derived(
    editing.spec.buildsOn ? (all.data?.find((t) => t.code === editing.spec.buildsOn)?.name ?? editing.spec.buildsOn) : undefined
  );
  const waiting = createQuery(() => ({
    queryKey: templateKeys.updates(template.code),
    queryFn: () => data(api.GET('/api/templates/{code}/updates', { params: { path: { code: template.code } } })),
    enabled: mayEdit && template.underWay > 0
  }));

  async function discard() {
    if (!confirm(w.discardSure)) return;
    try {
      const headers = { 'If-Match': editing.version ?? '' };
      await data(api.DELETE('/api/templates/{code}/draft', { params: { path: { code: template.code } }, headers }));
    } catch (e) {
      return failed(text.failure(e));
    }
    taken = undefined;
    editing.isDraft = false;
    await client.invalidateQueries({ queryKey: templateKeys.all });
    if (template.version === 0) await goto('/templates');
  }
  async function retire() {
    try {
      await data(
        api.PUT('/api/templates/{code}/retired', { params: { path: { code: template.code } }, body: { retired: !template.retired } })
      );
      await client.invalidateQueries({ queryKey: templateKeys.all });
      done(template.retired ? w.bringBack : w.retired);
    } catch (e) {
      failed(text.failure(e));
    }
  }
  async function copy(name: string, code: string) {
    await data(
      api.PUT('/api/templates/{code}/draft', { params: { path: { code } }, body: { spec: { ...editing.spec, name, nameDe: null } } })
    );
    copying = false;
    await client.invalidateQueries({ queryKey: templateKeys.all });
    await goto(`/templates/${code}`);
  }
  function step(by: number) {
    const rows = [...document.querySelectorAll<HTMLElement>('[data-rows] [aria-pressed]')];
    const at = rows.findIndex((r) => r.getAttribute('aria-pressed') === 'true');
    const next = rows[Math.max(0, Math.min(rows.length - 1, at + by))];
    next?.focus();
    next?.click();
  }
  function add() {
    if (view.part === 'values') values?.add();
    else if (view.part === 'tasks') tasks?.add();
    else entries?.add();
  }
  $effect(() =>
    keys.use(() => [
      { key: 'ArrowDown', label: text.t.keys.down, run: () => step(1) },
      { key: 'ArrowUp', label: text.t.keys.up, run: () => step(-1) },
      ...(mayEdit
        ? [
            { key: 'a', label: w.value.add, run: add },
            { key: 'e', label: w.edit, run: () => document.querySelector<HTMLElement>('[aria-keyshortcuts="e"]')?.click() },
            { key: 'Alt+ArrowDown', label: w.task.down, run: () => view.selected && tasks?.move(view.selected, 1) },
            { key: 'Alt+ArrowUp', label: w.task.up, run: () => view.selected && tasks?.move(view.selected, -1) }
          ]
        : []),
      { key: 'Escape', run: () => (view.selected ? (view.selected = undefined) : void goto('/templates')) }
    ])
  );
</script>

<div class="page pb-8">
  <div class="border-ink flex flex-wrap items-end justify-between gap-3 border-b pt-5 pb-3">
    <div class="min-w-0">
      <h1 class="inline text-2xl leading-tight">{named(editing.spec)}</h1>
      <p class="text-soft ml-2 inline text-xs">
        {#if below}
          {w.builds[0]} <a href="/templates/{editing.spec.buildsOn}" class="text-ink font-semibold hover:underline">{below}</a>
          {w.builds[1]} ·
        {/if}
        {w.version(template.version)}{#if editing.isDraft && template.version > 0}{w.andDraft}{/if} ·
        {#if editing.spec.occasion === 'payRun'}{w.begun(template.opened)}{:else}
          {editing.spec.addOn ? w.applied(template.opened) : w.opened(template.opened)},
          <strong class="text-ink">{w.underWay(template.underWay)}</strong>
        {/if}
        {#if template.retired}· <strong class="text-ochre">{w.retired}</strong>{/if}
      </p>
    </div>
    <div class="flex flex-wrap items-center gap-3">
      {#if mayEdit}
        <details class="relative">
          <summary class="link cursor-pointer text-xs">{w.more}</summary>
          <div class="border-ink bg-sheet absolute right-0 z-20 flex w-52 flex-col items-start gap-1 border p-3">
            <button type="button" class="link" onclick={() => (copying = true)}>{w.copy}</button>
            {#if template.version > 0}
              <button type="button" class="link" onclick={retire}>{template.retired ? w.bringBack : w.retire}</button>
              <a class="link" href="/api/templates/{template.code}/file" download="{template.code}.json">{w.exportIt}</a>
            {/if}
            {#if editing.isDraft}<button type="button" class="link text-rust" onclick={discard}>{w.discard}</button>{/if}
          </div>
        </details>
      {/if}
      {#if template.version > 0}<Button onclick={() => (versions = true)}>{w.compare}</Button>{/if}
      {#if mayEdit && editing.isDraft}
        <Button look="primary" disabled={editing.saving} onclick={() => (publishing = true)}>{w.publish}</Button>
      {/if}
    </div>
  </div>
  {#if waiting.data && waiting.data.length > 0}
    <p class="bg-ochre-tint border-ochre mt-3 border-l-4 px-4 py-2">
      <a class="link" href="/templates/{template.code}/updates">{w.updates(waiting.data.length)}</a>
    </p>
  {/if}
  {#if editing.other}
    <div role="alert" class="bg-ochre-tint border-ochre mt-3 flex flex-wrap gap-x-6 gap-y-1 border-l-4 px-4 py-3">
      <strong>{w.other(editing.other.byName)}</strong>
      <button type="button" class="link" onclick={() => editing.settle(false)}>{w.takeTheirs}</button>
      <button type="button" class="link" onclick={() => editing.settle(true)}>{w.keepOurs}</button>
    </div>
  {/if}
  <div class="grid gap-x-5 gap-y-6 pt-2 lg:grid-cols-[11.5rem_1fr_20rem]">
    <Parts
      parts={view.parts}
      part={view.part}
      counts={view.counts}
      wrong={view.wrong}
      {looks}
      edited={editing.code}
      onpart={(part) => view.go(part)}
    />
    <div data-rows class="min-w-0 pt-2">
      {#if view.part === 'values'}
        <ValueRows
          bind:this={values}
          {editing}
          offered={offered.data?.fields ?? []}
          {looks}
          selected={view.selected}
          {mayEdit}
          onselect={(field) => (view.selected = field)}
        />
      {:else if view.part === 'tasks'}
        <TaskRows
          bind:this={tasks}
          {editing}
          {stages}
          {looks}
          selected={view.selected}
          {mayEdit}
          onselect={(key) => (view.selected = key)}
          onlibrary={() => (library = true)}
        />
      {:else if view.part === 'about'}
        <About
          {editing}
          templates={all.data ?? []}
          offered={offered.data?.fields ?? []}
          functions={offered.data?.functions ?? []}
          {mayEdit}
        />
      {:else}
        {#key view.part}
          <EntryRows
            bind:this={entries}
            {editing}
            list={view.part}
            {looks}
            selected={view.selected}
            {mayEdit}
            onselect={(key) => (view.selected = key)}
          />
        {/key}
      {/if}
    </div>
    <Example {editing} {looks} templates={all.data ?? []} />
  </div>
</div>
{#if view.field}
  {#key view.selected}
    <ValueSheet
      {editing}
      field={view.field}
      offered={offered.data?.fields ?? []}
      functions={offered.data?.functions ?? []}
      {looks}
      mayEdit={mayEdit && view.maySet}
    />
  {/key}
{:else if view.part === 'tasks' && view.selected}
  {#key view.selected}
    <TaskSheet
      {editing}
      key={view.selected}
      {stages}
      {looks}
      {mayEdit}
      onmove={(by) => tasks?.move(view.selected!, by)}
      onclose={() => (view.selected = undefined)}
    />
  {/key}
{:else if view.selected && view.part !== 'about' && view.part !== 'values'}
  {#key view.selected}
    <EntrySheet {editing} list={view.part as ListName} key={view.selected} {mayEdit} onclose={() => (view.selected = undefined)} />
  {/key}
{/if}
{#if publishing}<PublishTemplate bind:open={publishing} {editing} live={template.version} underWay={template.underWay} />{/if}
{#if versions}
  <TemplateVersions
    bind:open={versions}
    code={template.code}
    live={template.version}
    hasDraft={editing.isDraft}
    names={editing.names}
    restore={mayEdit ? (spec) => void editing.put(spec) : undefined}
  />
{/if}
{#if copying}
  <Naming
    bind:open={copying}
    title={w.naming.copy(named(editing.spec))}
    name={`${editing.spec.name} 2`}
    taken={(all.data ?? []).map((t) => t.code)}
    onname={copy}
  />
{/if}
{#if library}
  <ReadyTasks
    bind:open={library}
    taken={[
      ...(editing.example?.entries ?? []).filter((e) => e.list === 'tasks').map((e) => e.key),
      ...entriesOf(editing.spec, 'tasks').map((e) => e.key)
    ]}
    ontake={(chosen) => editing.add('tasks', chosen)}
  />
{/if}

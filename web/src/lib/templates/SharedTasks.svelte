<script lang="ts">
  import { api, ApiProblem, data, type Api } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import FooterSheet from '$lib/ui/FooterSheet.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { done, failed } from '$lib/ui/toast';
  import { useQueryClient } from '@tanstack/svelte-query';
  import { editingQuery, sharedTasksQuery, templateKeys } from './queries';
  import TaskFields from './TaskFields.svelte';
  import { taskName } from './spec';
  import { words } from './words';

  /** The firm's shared tasks: a change of one changes every template that has it, and says first which those are. */
  const client = useQueryClient();
  const w = $derived(words());
  const shared = sharedTasksQuery();
  const offered = editingQuery();
  let open = $state<Api['SharedTaskResponse']>();
  let properties = $state.raw<Record<string, unknown>>({});
  let errors = $state.raw<{ pointer: string; code: string; detail: string }[]>([]);
  let why = $state('');
  function edit(task: Api['SharedTaskResponse']) {
    open = task;
    properties = task.properties;
    errors = [];
    why = '';
  }
  async function save() {
    try {
      await data(
        api.PUT('/api/shared-tasks/{key}', {
          params: { path: { key: open!.key } },
          body: { properties: properties as Record<string, never>, why: why.trim() || null },
          headers: { 'If-Match': open!.version }
        })
      );
      open = undefined;
      done(w.sharing.saved);
      await client.invalidateQueries({ queryKey: templateKeys.all });
    } catch (e) {
      if (e instanceof ApiProblem && e.errors.length > 0) errors = e.errors;
      else failed(text.failure(e));
    }
  }
  async function remove() {
    try {
      await data(api.DELETE('/api/shared-tasks/{key}', { params: { path: { key: open!.key } } }));
      open = undefined;
      await client.invalidateQueries({ queryKey: templateKeys.shared });
    } catch (e) {
      failed(text.failure(e));
    }
  }
</script>

<h2 class="pt-4 pb-1.5 text-base">{w.tasks}</h2>
{#if shared.data?.length === 0}<p class="border-ink text-soft border-t py-2">{w.sharing.none}</p>{/if}
<ul class="border-ink {shared.data?.length ? 'border-t' : ''}">
  {#each shared.data ?? [] as task (task.key)}
    <li class="border-rule flex flex-wrap items-baseline gap-x-6 border-b px-2 py-2">
      <button type="button" class="w-56 text-left font-semibold hover:underline" onclick={() => edit(task)}
        >{taskName(task.key, task.properties)}</button
      >
      <span class="text-soft text-xs">{task.templates.length > 0 ? text.list(task.templates) : w.sharing.unused}</span>
    </li>
  {/each}
</ul>
{#if open}
  <FooterSheet label={w.sharing.title}>
    <p class="min-w-0 flex-1">
      <strong>{taskName(open.key, properties)}</strong>
      <span class="text-ochre text-xs font-semibold">{open.templates.length > 0 ? w.sharing.touches(text.list(open.templates)) : ''}</span>
    </p>
    <div class="w-64"><TextField id="shared-why" label={w.sharing.why} bind:value={why} maxlength={500} /></div>
    {#if open.templates.length === 0}<Button look="danger" onclick={remove}>{w.sharing.remove}</Button>{/if}
    <Button onclick={() => (open = undefined)}>{w.cancel}</Button>
    <Button look="primary" onclick={save}>{w.sharing.save}</Button>
    {#key open.key}
      <TaskFields
        {properties}
        stages={offered.data?.stages ?? []}
        others={[]}
        ownerNames={{}}
        fileNames={{}}
        error={(p) => text.problem(errors.find((e) => e.pointer === `/properties/${p}`))}
        onchange={(name, value) => {
          const next = { ...properties };
          if (value === undefined) delete next[name];
          else next[name] = value;
          properties = next;
        }}
      />
    {/key}
  </FooterSheet>
{/if}

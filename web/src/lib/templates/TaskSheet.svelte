<script lang="ts">
  import { api, data, type Api } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import FooterSheet from '$lib/ui/FooterSheet.svelte';
  import { done, failed } from '$lib/ui/toast';
  import { useQueryClient } from '@tanstack/svelte-query';
  import type { LayerLook } from './layers';
  import { offsetWords, shownJson } from './shown';
  import { entryOf, taskName, workedName } from './spec';
  import TaskFields from './TaskFields.svelte';
  import type { TemplateEditing } from './editing.svelte';
  import { words } from './words';
  import { templateKeys } from './queries';

  /** A task of a template: what it says here, and what the layers below say. */
  interface Props {
    editing: TemplateEditing;
    key: string;
    stages: Api['TemplateStage'][];
    looks: LayerLook[];
    mayEdit: boolean;
    onmove: (by: number) => void;
    onclose: () => void;
  }
  let { editing, key, stages, looks, mayEdit, onmove, onclose }: Props = $props();
  const client = useQueryClient();
  const w = $derived(words());
  let open = $state(false);
  const tasks = $derived((editing.example?.entries ?? []).filter((e) => e.list === 'tasks'));
  const worked = $derived(tasks.find((t) => t.key === key));
  const said = $derived(entryOf(editing.spec, 'tasks', key));
  const own = $derived((said?.properties ?? {}) as Record<string, unknown>);
  const properties = $derived({
    ...Object.fromEntries(Object.entries(worked?.properties ?? {}).map(([name, p]) => [name, p.value as unknown])),
    ...own
  });
  const isOwn = $derived(editing.isOwn('tasks', key));
  const name = $derived(taskName(key, properties));
  const nameAt = (id: string) => looks.find((l) => l.id === id)?.name ?? id;
  const shown = (value: unknown) =>
    offsetWords(value, editing.spec.occasion) ??
    (typeof value === 'string' && value in text.t.owner ? text.owner(value, null) : shownJson(value));
  function note(property: string) {
    const p = worked?.properties[property];
    if (!p) return undefined;
    if (property in own)
      return p.displaced[0] ? w.value.displaces(shown(p.displaced[0].value).slice(0, 60), nameAt(p.displaced[0].from)) : undefined;
    return isOwn ? undefined : w.value.from(nameAt(p.from));
  }
  function error(property: string) {
    const f = (editing.example?.findings ?? []).find((f) => f.part === 'tasks' && f.key === key && f.property === property);
    return f ? text.problem({ pointer: '', code: f.code, detail: f.message }) : undefined;
  }
  async function share() {
    try {
      await data(
        api.PUT('/api/shared-tasks/{key}', {
          params: { path: { key } },
          body: { properties: properties as Record<string, never>, why: null }
        })
      );
      editing.setEntry('tasks', key, { shared: key, properties: properties as never });
      done(w.sharing.saved);
      await client.invalidateQueries({ queryKey: templateKeys.shared });
    } catch (e) {
      failed(text.failure(e));
    }
  }
</script>

<FooterSheet label={name}>
  <p class="min-w-0 flex-1">
    <strong>{name}</strong>
    <span class="text-soft text-xs">
      {text.owner(String(properties.owner ?? ''), editing.example?.ownerNames[String(properties.owner)])} ·
      {w.task.days(Number(properties.work ?? 1))}{#if offsetWords(properties.due, editing.spec.occasion)}
        · {w.task.due} {offsetWords(properties.due, editing.spec.occasion)}{/if}{#if said?.shared}
        · {w.task.shared(said.shared)}{/if}
    </span>
  </p>
  {#if mayEdit}
    <div class="flex flex-wrap gap-3">
      {#if isOwn && said}
        <Button aria-label={w.task.up} onclick={() => onmove(-1)}>↑</Button>
        <Button aria-label={w.task.down} onclick={() => onmove(1)}>↓</Button>
      {/if}
      {#if said?.shared}
        <Button onclick={() => editing.setEntry('tasks', key, { shared: null })}>{w.task.unshare}</Button>
      {:else if isOwn}
        <Button onclick={share}>{w.task.share}</Button>
      {/if}
      {#if isOwn}
        <Button
          look="danger"
          onclick={() => {
            editing.remove('tasks', key);
            onclose();
          }}>{w.task.takeAway}</Button
        >
      {:else}
        {#if said && !said.drop}<Button onclick={() => editing.remove('tasks', key)}>{w.task.reset}</Button>{/if}
        <Button look="danger" onclick={() => editing.setEntry('tasks', key, { drop: true })}>{w.task.drop}</Button>
      {/if}
      <Button look="primary" key="e" onclick={() => (open = !open)}>{open ? w.close : w.edit}</Button>
    </div>
  {/if}
  {#if open}
    <TaskFields
      {properties}
      {stages}
      occasion={editing.spec.occasion}
      others={tasks.filter((t) => t.key !== key).map((t) => ({ key: t.key, name: workedName(t) }))}
      ownerNames={editing.example?.ownerNames ?? {}}
      fileNames={editing.example?.fileNames ?? {}}
      {note}
      {error}
      onchange={(property, value) => editing.setProperty('tasks', key, property, value)}
    />
  {/if}
  <p class="text-soft w-full text-xs" role="status">
    {editing.saving ? w.saving : editing.isDraft && editing.by ? w.kept(editing.by) : ''}
  </p>
</FooterSheet>

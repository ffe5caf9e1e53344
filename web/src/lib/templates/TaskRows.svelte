<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import { done } from '$lib/ui/toast';
  import LayerMark from './LayerMark.svelte';
  import type { LayerLook } from './layers';
  import Condition from './Condition.svelte';
  import ConditionWords from './ConditionWords.svelte';
  import { editingQuery } from './queries';
  import { offsetWords } from './shown';
  import { entryOf, keyFrom, workedName } from './spec';
  import type { TemplateEditing } from './editing.svelte';
  import { words } from './words';

  /** The checklist an example would have, stage by stage; dragged or moved by keys. */
  interface Props {
    editing: TemplateEditing;
    stages: Api['TemplateStage'][];
    looks: LayerLook[];
    selected: string | undefined;
    mayEdit: boolean;
    onselect: (key: string) => void;
    onlibrary: () => void;
  }
  let { editing, stages, looks, selected, mayEdit, onselect, onlibrary }: Props = $props();
  const offered = editingQuery();
  /** The stage whose condition is being edited. */
  let conditioned = $state<string>();
  const stageWhen = (key: string) => {
    const worked = (editing.example?.entries ?? []).find((e) => e.list === 'stages' && e.key === key)?.properties.when?.value;
    const own = entryOf(editing.spec, 'stages', key)?.properties.when;
    const said = own === undefined ? worked : own;
    return typeof said === 'string' ? said : null;
  };
  const w = $derived(words());
  type Row = Api['ExampleEntry'];
  const tasks = $derived((editing.example?.entries ?? []).filter((e) => e.list === 'tasks'));
  const dropped = $derived((editing.example?.dropped ?? []).filter((d) => d.list === 'tasks'));
  const of = (task: Row, property: string): unknown => task.properties[property]?.value;
  const stageOf = (task: Row) => String(of(task, 'stage') ?? '');
  const nameAt = (id: string) => looks.find((l) => l.id === id)?.name ?? id;
  const ownerOf = (task: Row) => {
    const owner = String(of(task, 'owner') ?? '');
    return text.owner(owner, editing.example?.ownerNames[owner]);
  };
  const fromOf = (task: Row) => {
    const all = Object.values(task.properties);
    const ids = [...new Set(all.flatMap((p) => [p.from, ...p.displaced.map((d) => d.from)]))];
    const top = looks.filter((l) => ids.includes(l.id)).at(-1)?.id ?? '';
    return { top, below: ids.filter((i) => i !== top) };
  };
  const findingsOf = (key: string) => (editing.example?.findings ?? []).filter((f) => f.part === 'tasks' && f.key === key);
  let dragged = $state<string>();

  export function add() {
    const taken = [...tasks.map((t) => t.key), ...(editing.spec.lists.tasks ?? []).map((e) => e.key)];
    const key = keyFrom(w.task.newName, taken);
    const stage = selected ? stageOf(tasks.find((t) => t.key === selected)!) : stages[0]?.key;
    editing.add('tasks', [
      {
        key,
        properties: { name: w.task.newName, stage: stage ?? stages[0]!.key, owner: 'coordinator', work: 1 } as never,
        drop: false,
        shared: null
      }
    ]);
    onselect(key);
  }
  /** Moves a task of its own among its own. */
  export function move(key: string, by: number) {
    const own = editing.spec.lists.tasks ?? [];
    const at = own.findIndex((e) => e.key === key);
    if (at < 0 || !editing.isOwn('tasks', key)) return done(w.task.orderBelow);
    editing.move('tasks', key, by < 0 ? own[Math.max(0, at - 1)]!.key : own[at + 2]?.key);
  }
  function drop(before: Row | undefined, stage: string) {
    if (!dragged) return;
    const task = tasks.find((t) => t.key === dragged);
    const elsewhere = task && stageOf(task) !== stage;
    if (elsewhere) editing.setProperty('tasks', dragged, 'stage', stage);
    if (before && [before.key, dragged].every((key) => editing.isOwn('tasks', key))) editing.move('tasks', dragged, before.key);
    else if (before && !elsewhere) done(w.task.orderBelow);
    dragged = undefined;
  }
</script>

<h2 class="pb-1 text-lg">{w.parts.tasks}</h2>
{#each [...stages, ...(tasks.some((t) => !stages.some((s) => s.key === stageOf(t))) ? [{ key: '', name: '–' }] : [])] as stage (stage.key)}
  {@const rows = tasks.filter((t) => (stages.some((s) => s.key === stageOf(t)) ? stageOf(t) : '') === stage.key)}
  <div
    role="group"
    aria-label={stage.name}
    ondragover={(e) => e.preventDefault()}
    ondrop={(e) => {
      e.preventDefault();
      drop(undefined, stage.key);
    }}
  >
    <h3 class="border-ink flex items-baseline justify-between border-b pt-3 pb-1 font-sans text-sm font-semibold">
      <span class="flex flex-wrap items-baseline gap-x-3"
        >{stage.name}
        {#if stage.key && editing.spec.occasion !== 'payRun'}
          {@const when = stageWhen(stage.key)}
          {#if mayEdit}
            <button
              type="button"
              class="link text-soft min-h-6 text-xs font-normal"
              aria-expanded={conditioned === stage.key}
              onclick={() => (conditioned = conditioned === stage.key ? undefined : stage.key)}
              >{#if when}{w.when.title} <ConditionWords {when} />{:else}{w.when.set}{/if}</button
            >
          {:else if when}<span class="text-soft text-xs font-normal">{w.when.title} <ConditionWords {when} /></span>{/if}
        {/if}</span
      > <span class="text-soft text-xs font-normal">{rows.length}</span>
    </h3>
    {#if conditioned === stage.key}
      <div class="border-rule border-b pb-2">
        <Condition
          id="stage-when"
          title={w.when.stage(stage.name)}
          always={w.when.alwaysStage}
          when={stageWhen(stage.key)}
          finding={(editing.example?.findings ?? []).find((f) => f.part === 'stages' && f.key === stage.key)}
          offered={offered.data?.fields ?? []}
          functions={offered.data?.functions ?? []}
          {mayEdit}
          onchange={(when) => editing.setProperty('stages', stage.key, 'when', when)}
        />
      </div>
    {/if}
    <ul>
      {#each rows as task (task.key)}
        {@const marks = fromOf(task)}
        <li
          draggable={mayEdit}
          ondragstart={() => (dragged = task.key)}
          ondrop={(e) => {
            e.preventDefault();
            e.stopPropagation();
            drop(task, stage.key);
          }}
        >
          <button
            type="button"
            id="task-{task.key}"
            class="grid w-full grid-cols-[1fr_auto] items-center gap-x-3 border px-2 py-1.5 text-left sm:grid-cols-[1fr_7rem_3.5rem_10rem_auto] {selected ===
            task.key
              ? 'border-sea bg-sheet'
              : 'border-b-rule hover:bg-band border-transparent'}"
            aria-pressed={selected === task.key}
            onclick={() => onselect(task.key)}
          >
            <span class="min-w-0">
              <strong class={entryOf(editing.spec, 'tasks', task.key) ? '' : 'font-medium'}>{workedName(task)}</strong>
              {#if of(task, 'dayOne') === true}<span class="text-soft text-2xs" title={w.task.dayOne}> ⚑</span>{/if}
              {#if entryOf(editing.spec, 'tasks', task.key)?.shared}<span class="text-soft text-2xs"> ∞</span>{/if}
              {#each findingsOf(task.key) as f (f.code + f.property)}<span
                  class="block text-xs font-semibold {f.blocks ? 'text-rust' : 'text-ochre'}"
                  >{text.problem({ pointer: '', code: f.code, detail: f.message })}</span
                >{/each}
            </span>
            <span class="text-soft truncate text-xs">{ownerOf(task)}</span>
            <span class="text-soft hidden text-xs sm:block">{w.task.days(Number(of(task, 'work') ?? 1))}</span>
            <span class="text-soft hidden truncate text-xs sm:block">{offsetWords(of(task, 'due'), editing.spec.occasion) ?? ''}</span>
            <LayerMark {looks} from={marks.top} displaced={marks.below} />
          </button>
        </li>
      {/each}
    </ul>
  </div>
{/each}
{#if dropped.length > 0}
  <ul class="pt-3">
    {#each dropped as d (d.key)}
      <li class="text-soft flex items-center justify-between gap-3 px-2 py-1 text-xs">
        <span><s>{d.key}</s> {w.task.dropped(nameAt(d.by))}</span>
        {#if mayEdit}
          <button type="button" class="link" onclick={() => editing.setEntry('tasks', d.key, { drop: false })}>{w.task.bringBack}</button>
        {/if}
      </li>
    {/each}
  </ul>
{/if}
{#if mayEdit}
  <p class="flex flex-wrap gap-3 pt-3">
    <Button key="a" onclick={add}>{w.task.add}</Button>
    <Button onclick={onlibrary}>{w.task.library}</Button>
  </p>
{/if}

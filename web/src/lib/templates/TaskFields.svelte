<script lang="ts">
  import type { Api } from '$lib/api/client';
  import ListPicker from '$lib/lists/ListPicker.svelte';
  import { give } from '$lib/record/files';
  import { text } from '$lib/text/index.svelte';
  import { failed } from '$lib/ui/toast';
  import Chips from '$lib/ui/Chips.svelte';
  import Line from '$lib/ui/Line.svelte';
  import Markdown from '$lib/ui/Markdown.svelte';
  import Picker from '$lib/ui/Picker.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import Condition from './Condition.svelte';
  import OffsetField from './OffsetField.svelte';
  import { editingQuery } from './queries';
  import SettingFields from './SettingFields.svelte';
  import { settingsOf } from './settings';
  import StepFields from './StepFields.svelte';
  import { stepsOf } from './steps';
  import TaskAbout from './TaskAbout.svelte';
  import { kindOf } from './taskKinds';
  import { minutesOf } from '$lib/tasks/meeting';
  import MeetingFields from '$lib/tasks/MeetingFields.svelte';
  import OwnerField from '$lib/tasks/OwnerField.svelte';
  import { words } from './words';

  /** All that a task says, each with a word about where it came from. */
  interface Props {
    properties: Record<string, unknown>;
    stages: Api['TemplateStage'][];
    /** What the template is for. */
    occasion?: Api['Occasion'];
    /** Tasks it can come after. */
    others: { key: string; name: string }[];
    ownerNames: Record<string, string>;
    /** How attached files are called. */
    fileNames: Record<string, string>;
    note?: (property: string) => string | undefined;
    error?: (property: string) => string | undefined;
    onchange: (property: string, value: unknown) => void;
  }
  let {
    properties,
    stages,
    occasion = 'arrival',
    others,
    ownerNames,
    fileNames,
    note = () => undefined,
    error = () => undefined,
    onchange
  }: Props = $props();
  const offered = editingQuery();
  /** A pay run is nobody's: nothing in it speaks of a person or a record. */
  const isOfPerson = $derived(occasion !== 'payRun');
  const w = $derived(words());
  const str = (name: string) => (typeof properties[name] === 'string' ? properties[name] : '');
  let name = $derived(str('name'));
  let nameDe = $derived(str('nameDe'));
  let working = $state<string>();
  const work = $derived(working ?? String(properties.work ?? 1));
  const after = $derived(
    (Array.isArray(properties.after) ? (properties.after as (string | { id: string; lag?: number })[]) : []).map((a) =>
      typeof a === 'string' ? { id: a, lag: 0 } : { id: a.id, lag: a.lag ?? 0 }
    )
  );
  const nameOf = (key: string) => others.find((o) => o.key === key)?.name ?? key;
  const setAfter = (next: { id: string; lag: number }[]) =>
    onchange(
      'after',
      next.map((a) => (a.lag ? a : a.id))
    );
  const attached = $derived(Array.isArray(properties.attachments) ? (properties.attachments as string[]) : []);
  let given = $state<Record<string, string>>({});
  async function attach(files: FileList | null) {
    const file = files?.[0];
    if (!file) return;
    try {
      const stored = await give(file);
      given = { ...given, [stored.id]: stored.name };
      onchange('attachments', [...attached, stored.id]);
    } catch (e) {
      failed(text.failure(e));
    }
  }
</script>

{#snippet instructionsIn(property: 'instructions' | 'instructionsDe', label: string)}
  {@const id = `task-${property}`}
  {@const written = str(property)}
  <div class="sm:col-span-2">
    <Line {id} {label} note={note(property) ?? w.task.instructionsNote} error={error(property)}>
      <textarea
        {id}
        value={written}
        rows="2"
        maxlength="8000"
        dir="auto"
        class="field-sizing-content max-h-48 w-full bg-transparent px-0.5 py-1 font-medium outline-none"
        aria-describedby="{id}-note"
        oninput={(e) => onchange(property, e.currentTarget.value || undefined)}></textarea>
    </Line>
    {#if /[*_[\]#\n]|^-/.test(written)}<div class="border-rule border-l-2 pl-3 text-xs"><Markdown text={written} /></div>{/if}
  </div>
{/snippet}

{#snippet whyIn(property: 'contactWhy' | 'contactWhyDe', label: string)}
  <TextField
    id="task-{property}"
    {label}
    value={str(property)}
    maxlength={500}
    note={note(property)}
    error={error(property)}
    oninput={(e) => onchange(property, e.currentTarget.value || undefined)}
  />
{/snippet}

<div class="grid w-full grid-cols-1 gap-x-5 sm:grid-cols-2 lg:grid-cols-4">
  <div>
    <TextField
      id="task-name"
      label={w.task.name}
      value={name}
      maxlength={200}
      note={note('name')}
      error={error('name')}
      oninput={(e) => onchange('name', (name = e.currentTarget.value))}
    />
  </div>
  <TextField
    id="task-name-de"
    label={w.task.nameDe}
    value={nameDe}
    maxlength={200}
    note={note('nameDe')}
    error={error('nameDe')}
    oninput={(e) => onchange('nameDe', (nameDe = e.currentTarget.value) || undefined)}
  />
  <div>
    <OwnerField
      id="task-owner"
      label={w.task.owner}
      value={str('owner')}
      shown={ownerNames[str('owner')] ?? ''}
      note={note('owner')}
      error={error('owner')}
      byRole={isOfPerson}
      onchange={(v) => v && onchange('owner', v)}
    />
  </div>
  <Picker
    id="task-stage"
    label={w.task.stage}
    value={str('stage')}
    choices={stages.map((s) => ({ value: s.key, label: s.name }))}
    note={note('stage')}
    error={error('stage')}
    onchange={(v) => v && onchange('stage', v)}
  />
  <TextField
    id="task-work"
    label={w.task.work}
    inputmode="numeric"
    value={work}
    note={note('work')}
    error={error('work')}
    oninput={(e) => {
      const typed = (working = e.currentTarget.value).trim();
      if (typed !== '') onchange('work', /^\d+$/.test(typed) ? Number(typed) : typed);
    }}
  />
  <OffsetField
    {occasion}
    id="task-due"
    label={w.task.due}
    value={properties.due}
    error={error('due')}
    onchange={(v) => onchange('due', v)}
  />
  <OffsetField
    {occasion}
    id="task-opens"
    label={w.task.opens}
    value={properties.opens}
    error={error('opens')}
    onchange={(v) => onchange('opens', v)}
  />
  <div class="min-w-0">
    <ListPicker
      id="task-calendar"
      label={w.task.calendar}
      list="calendars"
      value={str('calendar') === 'own' ? '' : str('calendar')}
      shown={str('calendar') === 'own' || str('calendar') === '' ? w.task.own : str('calendar')}
      note={note('calendar')}
      error={error('calendar')}
      onchange={(v) => onchange('calendar', v || 'own')}
    />
  </div>
  <div class="sm:col-span-2">
    <Picker
      id="task-after"
      label={w.task.addAfter}
      value=""
      choices={others.filter((o) => !after.some((a) => a.id === o.key)).map((o) => ({ value: o.key, label: o.name }))}
      note={note('after')}
      error={error('after')}
      onchange={(v) => v && setAfter([...after, { id: v, lag: 0 }])}
    />
    {#if after.length > 0}
      <Chips
        label={w.task.after}
        chosen={after.map((a) => ({ value: a.id, label: a.lag ? `${nameOf(a.id)} + ${a.lag}` : nameOf(a.id) }))}
        takeAway={(v) => `${w.task.takeAway}: ${nameOf(v)}`}
        ontake={(v) => setAfter(after.filter((a) => a.id !== v))}
      />
      <div class="flex flex-wrap gap-x-4 pb-2">
        {#each after as a (a.id)}
          <label class="text-soft flex items-center gap-1 text-xs">
            {nameOf(a.id)} +
            <input
              inputmode="numeric"
              class="border-rule w-8 border-b bg-transparent"
              value={a.lag || ''}
              onchange={(e) => setAfter(after.map((o) => (o.id === a.id ? { ...o, lag: Number(e.currentTarget.value) || 0 } : o)))}
            />
            {w.task.lag}
          </label>
        {/each}
      </div>
    {/if}
  </div>
  <div class="flex flex-col gap-1 py-2 sm:col-span-2">
    <label class="flex items-center gap-2"
      ><input type="checkbox" checked={properties.required !== false} onchange={(e) => onchange('required', e.currentTarget.checked)} />{w
        .task.required}</label
    >
    {#if isOfPerson}<label class="flex items-center gap-2"
        ><input type="checkbox" checked={properties.dayOne === true} onchange={(e) => onchange('dayOne', e.currentTarget.checked)} />{w.task
          .dayOne}</label
      >{/if}
  </div>
  {#if isOfPerson}{@render ofPerson()}{/if}
  {@render instructionsIn('instructions', w.task.instructions)}
  {@render instructionsIn('instructionsDe', w.task.instructionsDe)}
  {#if isOfPerson}{@render helpAndFiles()}{/if}
</div>

{#snippet ofPerson()}
  <TaskAbout
    kind={kindOf(properties)}
    about={Array.isArray(properties.about) ? (properties.about as string[]) : []}
    {note}
    {error}
    {onchange}
  />
  {#if kindOf(properties) === 'steps'}<StepFields steps={stepsOf(properties)} {note} {error} {onchange} />{/if}
  {#if kindOf(properties) === 'run'}<SettingFields settings={settingsOf(properties)} {note} {error} {onchange} />{/if}
  {#if kindOf(properties) === 'attend'}
    <MeetingFields
      at={str('at')}
      minutes={typeof properties.minutes === 'number' && properties.minutes >= 0 ? String(properties.minutes) : ''}
      place={str('place')}
      {note}
      {error}
      onchange={(part, typed) =>
        onchange(part, part === 'minutes' ? (minutesOf(typed) ?? undefined) : typed.trim() === '' ? undefined : typed)}
    />
  {/if}
  <div class="sm:col-span-2 lg:col-span-4">
    <Condition
      id="task-when"
      title={w.when.title}
      always={w.when.alwaysTask}
      when={str('when') || null}
      finding={error('when') ? { part: 'tasks', key: null, property: 'when', code: '', message: error('when')!, blocks: true } : undefined}
      offered={offered.data?.fields ?? []}
      functions={offered.data?.functions ?? []}
      mayEdit
      onchange={(when) => onchange('when', when)}
    />
  </div>
{/snippet}

{#snippet helpAndFiles()}
  <div>
    <OwnerField
      id="task-contact"
      label={w.task.contact}
      value={str('contact')}
      shown={ownerNames[str('contact')] ?? ''}
      note={note('contact') ?? (str('contact') ? undefined : w.task.nobody)}
      error={error('contact')}
      onchange={(v) => onchange('contact', v || undefined)}
    />
  </div>
  {@render whyIn('contactWhy', w.task.contactWhy)}
  {@render whyIn('contactWhyDe', w.task.contactWhyDe)}
  <div class="sm:col-span-2">
    <label class="link cursor-pointer text-xs"
      >{w.task.attach}<input
        type="file"
        class="sr-only"
        onchange={async (e) => {
          await attach(e.currentTarget.files);
        }}
      /></label
    >
    {#if attached.length > 0}
      <Chips
        label={w.task.attachments}
        chosen={attached.map((f) => ({ value: f, label: given[f] ?? fileNames[f] ?? f }))}
        takeAway={(f) => `${w.task.takeAway}: ${given[f] ?? fileNames[f] ?? f}`}
        ontake={(f) =>
          onchange(
            'attachments',
            attached.filter((a) => a !== f)
          )}
      />
    {/if}
  </div>
{/snippet}

<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { fieldTitle } from '$lib/text/fieldLabels.svelte';
  import ListPicker from '$lib/lists/ListPicker.svelte';
  import { text } from '$lib/text/index.svelte';
  import DateField from '$lib/ui/DateField.svelte';
  import Picker from '$lib/ui/Picker.svelte';
  import ExamplePlan from './ExamplePlan.svelte';
  import type { LayerLook } from './layers';
  import LayerMark from './LayerMark.svelte';
  import { editingQuery } from './queries';
  import { shownJson } from './shown';
  import type { TemplateEditing } from './editing.svelte';
  import { words } from './words';

  /** What a hire would get, for chosen facts: how much, by whom and when, and which layer gave it. */
  interface Props {
    editing: TemplateEditing;
    looks: LayerLook[];
    templates: Api['TemplateRow'][];
  }
  let { editing, looks, templates }: Props = $props();
  const w = $derived(words());
  const offered = editingQuery();
  const example = $derived(editing.example);
  let changing = $state(false);
  const shownFacts = [
    { field: 'site', list: 'sites' },
    { field: 'department', list: 'departments' },
    { field: 'kind', list: 'employmentKinds' }
  ];
  const fact = (field: string) => {
    const v = editing.facts[field] ?? example?.values.find((v) => v.field === field)?.value;
    return typeof v === 'string' ? v : '';
  };
  const factShown = (field: string) => {
    const found = example?.values.find((v) => v.field === field);
    return found && found.value === fact(field) ? (found.display ?? '') : '';
  };
  const entries = $derived((example?.entries ?? []).filter((e) => e.list === 'items' || e.list === 'certificates'));
  const dropped = $derived((example?.dropped ?? []).filter((d) => d.list !== 'tasks'));
  const tasks = $derived(example?.entries.filter((e) => e.list === 'tasks') ?? []);
  /** Whom the example is about, as far as conditions ask. */
  const about = $derived(
    [
      editing.spec.addOn ? (templates.find((t) => t.code === example?.use)?.name ?? example?.use) : '',
      ...shownFacts.map((f) => factShown(f.field) || fact(f.field))
    ]
      .filter(Boolean)
      .join(' · ')
  );
  const ofRun = $derived(editing.spec.occasion === 'payRun');
  const dayOne = $derived(tasks.filter((t) => t.properties.dayOne?.value === true).length);
  const rate = $derived(example?.values.find((v) => v.field === 'pay_rate'));
  const paidBy = $derived(example?.values.find((v) => v.field === 'paid_by'));
  const nameAt = (id: string) => looks.find((l) => l.id === id)?.name ?? id;
  const trouble = $derived((example?.findings ?? []).filter((f) => f.part === 'example'));
  function said(entry: (typeof entries)[number]): string {
    const { note, need } = entry.properties;
    if (note) return String(note.value);
    return need ? (need.value === 'essential' ? w.entry.essential : w.entry.desirable) : '';
  }
  const set = (field: string, value: string) => {
    const facts = { ...editing.facts };
    if (value === '') delete facts[field];
    else facts[field] = value;
    editing.facts = facts;
    void editing.look();
  };
  const layersOf = (entry: (typeof entries)[number]) => {
    const ids = [...new Set(Object.values(entry.properties).flatMap((p) => [p.from, ...p.displaced.map((d) => d.from)]))];
    const top = looks.filter((l) => ids.includes(l.id)).at(-1)?.id ?? '';
    return { top, below: ids.filter((i) => i !== top) };
  };
</script>

<aside aria-labelledby="example-title" class="border-rule lg:border-l lg:pl-5">
  <h2 id="example-title" class="text-lg">{ofRun ? w.example.titleOfRun : w.example.title}</h2>
  {#if example}
    <p class="text-soft pb-2 text-xs">
      {about === '' ? '' : `${about} · `}{ofRun ? w.example.cutOff : w.example.starts}
      <strong class="text-ink">{text.day(example.start)}</strong>
      <button type="button" class="link ml-1" aria-expanded={changing} onclick={() => (changing = !changing)}
        >{changing ? w.example.done : w.example.change}</button
      >
    </p>
    {#if changing}
      <div class="grid grid-cols-2 gap-x-4 pb-2">
        {#if editing.spec.addOn}
          <Picker
            id="example-use"
            label={w.example.use}
            value={example.use}
            choices={templates
              .filter((t) => t.opens && t.occasion === (editing.spec.occasion ?? 'arrival'))
              .map((t) => ({ value: t.code, label: t.name }))}
            onchange={(v) => {
              editing.use = v;
              void editing.look();
            }}
          />
        {/if}
        {#each shownFacts as f (f.field)}
          <ListPicker
            id="example-{f.field}"
            label={fieldTitle(f.field)}
            list={f.list}
            value={fact(f.field)}
            shown={factShown(f.field)}
            onchange={(v) => set(f.field, v)}
          />
        {/each}
        <DateField
          id="example-start"
          label={ofRun ? w.example.cutOff : w.example.start}
          value={example.start}
          onchange={(v) => {
            editing.start = v;
            void editing.look();
          }}
        />
      </div>
    {/if}
    {#if trouble.length > 0}
      <p class="text-rust font-semibold">{w.example.trouble}</p>
      {#each trouble as f (f.message)}<p class="text-rust text-xs">{f.message}</p>{/each}
    {:else}
      <dl class="border-rule grid grid-cols-3 gap-x-4 border-b pb-2" aria-live="polite">
        {#if (editing.spec.occasion ?? 'arrival') === 'arrival'}
          <div>
            <dd class="text-xl font-bold tabular-nums">{example.values.length}</dd>
            <dt class="text-soft text-xs">{w.example.values(example.left)}</dt>
          </div>
        {/if}
        <div>
          <dd class="text-xl font-bold tabular-nums">{tasks.length}</dd>
          <dt class="text-soft text-xs">{ofRun ? w.example.tasksOfRun : w.example.tasks(dayOne)}</dt>
        </div>
        {#if rate && typeof rate.value === 'number'}
          <div>
            <dd class="text-xl font-bold tabular-nums">{text.money(rate.value)}</dd>
            <dt class="text-soft text-xs">
              {fieldTitle('pay_rate')}{paidBy
                ? `, ${shownJson(paidBy.value, offered.data?.fields.find((f) => f.field.key === 'paid_by')?.field)}`
                : ''}
            </dt>
          </div>
        {/if}
      </dl>
      {#if example.plan}
        <ExamplePlan plan={example.plan} start={example.start} />
        {#if !ofRun}<p class="pb-2 text-xs {example.plan.feasible ? 'text-sea' : 'text-rust'} font-semibold">
            {example.plan.feasible
              ? w.example.feasible
              : example.plan.soonestStart
                ? w.example.notFeasible(text.day(example.plan.soonestStart))
                : w.example.never}
          </p>{/if}
      {:else if tasks.length > 0}<p class="text-soft py-2 text-xs">{w.example.noPlan}</p>{/if}
      <ul>
        {#each entries as entry (entry.list + entry.key)}
          {@const marks = layersOf(entry)}
          <li class="border-rule flex items-center gap-3 border-b py-1.5">
            <strong class="min-w-0 flex-1 truncate">{entry.name ?? entry.key}</strong>
            <span class="text-soft truncate text-xs">{said(entry)}</span>
            <LayerMark {looks} from={marks.top} displaced={marks.below} />
          </li>
        {/each}
        {#each dropped as d (d.list + d.key)}
          <li class="border-rule text-soft flex items-center gap-3 border-b py-1.5">
            <s class="flex-1">{d.name ?? d.key}</s><span class="text-xs">{w.example.dropped(nameAt(d.by))}</span>
          </li>
        {/each}
      </ul>
    {/if}
  {/if}
</aside>

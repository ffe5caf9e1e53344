<script lang="ts">
  import { optionsQuery } from '$lib/lists/queries';
  import ListPicker from '$lib/lists/ListPicker.svelte';
  import { words as taskWords } from '$lib/tasks/words';
  import { text } from '$lib/text/index.svelte';
  import { named } from '$lib/text/named';
  import Chips from '$lib/ui/Chips.svelte';
  import Picker from '$lib/ui/Picker.svelte';
  import { editingQuery } from './queries';
  import { aboutOf, completesItself, taskKinds, type TaskKind } from './taskKinds';
  import { words } from './words';

  /** What kind of thing a task asks for, and of which fields, items or certificates. */
  interface Props {
    kind: TaskKind;
    about: string[];
    note?: (property: string) => string | undefined;
    error?: (property: string) => string | undefined;
    onchange: (property: string, value: unknown) => void;
  }
  let { kind, about, note = () => undefined, error = () => undefined, onchange }: Props = $props();
  const w = $derived(words().kind);
  const kinds = $derived(taskWords().kinds);
  const offered = editingQuery();
  const fields = $derived((offered.data?.fields ?? []).map((o) => o.field));
  const of = $derived(aboutOf(kind));
  const entries = optionsQuery();
  function called(value: string) {
    if (of === 'fields') return fields.find((f) => f.key === value)?.label[text.language] ?? value;
    const entry = entries.data?.options.find((o) => o.list === of && o.code === value);
    return entry ? named(entry) : value;
  }
  const add = (value: string) => value && onchange('about', [...about, value]);

  function choose(next: string) {
    if (!next) return;
    // What one kind is about means nothing to another.
    if (aboutOf(next as TaskKind) !== of && about.length > 0) onchange('about', undefined);
    onchange('kind', next === 'toDo' ? undefined : next);
  }
</script>

<Picker
  id="task-kind"
  label={words().task.kind}
  value={kind}
  choices={taskKinds.map((k) => ({ value: k, label: kinds[k] }))}
  note={note('kind') ?? (completesItself(kind) ? w.itself : kind === 'run' ? w.automatic : w.byHand)}
  error={error('kind')}
  onchange={choose}
/>
{#if of}
  <div class="min-w-0 sm:col-span-2 lg:col-span-3">
    {#if of === 'fields'}
      <Picker
        id="task-about"
        label={w.about.fields}
        value=""
        choices={fields.filter((f) => !about.includes(f.key)).map((f) => ({ value: f.key, label: f.label[text.language] }))}
        note={note('about')}
        error={error('about')}
        onchange={add}
      />
    {:else}
      <!-- Anew with every choice, so that it stands empty for the next. -->
      {#key about.length}
        <ListPicker
          id="task-about"
          label={w.about[of]}
          list={of}
          value=""
          without={about}
          note={note('about')}
          error={error('about')}
          onchange={add}
        />
      {/key}
    {/if}
    {#if about.length > 0}
      <Chips
        label={w.about[of]}
        chosen={about.map((value) => ({ value, label: called(value) }))}
        takeAway={(value) => `${words().task.takeAway}: ${called(value)}`}
        ontake={(value) => {
          const left = about.filter((a) => a !== value);
          onchange('about', left.length > 0 ? left : undefined);
        }}
      />
    {/if}
  </div>
{/if}

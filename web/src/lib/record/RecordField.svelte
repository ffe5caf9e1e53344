<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { sourceText } from '$lib/source';
  import { text } from '$lib/text/index.svelte';
  import DateField from '$lib/ui/DateField.svelte';
  import Line from '$lib/ui/Line.svelte';
  import PersonPicker from '$lib/ui/PersonPicker.svelte';
  import Picker from '$lib/ui/Picker.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { isNumeric, typedOf, type Editing } from './editing.svelte';
  import { shownValue } from './show';

  /** A field of a record with the editor that fits what it holds, and a small word saying where its value came from. */
  interface Props {
    field: Api['FieldResponse'];
    record: Api['RecordResponse'];
    editing: Editing;
    lists: Api['ListOption'][];
  }
  let { field, record, editing, lists }: Props = $props();
  const id = $derived(`field-${field.key}`);
  const label = $derived(field.label[text.language]);
  const changed = $derived(field.key in editing.changes);
  const value = $derived(editing.changes[field.key] ?? typedOf(field));
  const error = $derived(text.problem(editing.errors.find((e) => e.pointer === `/changes/${field.key}`)));
  const gap = $derived(field.requiredFrom !== null && value.trim() === '');
  let telling = $state(false);

  const story = $derived.by(() => {
    const t = text.t.source;
    if (!field.source) return t.empty;
    const parts = [sourceText(field.source)];
    if (field.change) parts.push(`${t.by(field.change.by)} ${t.from(field.change.origin)}`, text.day(field.change.at.slice(0, 10)));
    if (field.change?.why) parts.push(field.change.why);
    if (field.since) parts.push(t.since(text.day(field.since)));
    return parts.join(' · ');
  });
  const note = $derived(
    telling ? story : gap ? text.t.record.neededBefore : changed ? text.t.source.you : field.source ? sourceText(field.source) : ''
  );
  const noteTone = $derived(gap ? ('ochre' as const) : ('faint' as const));
  const set = (v: string) => editing.set(record, field, v);
  // A money value is shown with the decimals it has, at least the minor unit's.
  const numeric = $derived(
    changed
      ? value
      : field.value == null
        ? ''
        : text.number(
            Number(field.value),
            field.type === 'money' ? Math.max(2, (String(field.value).split('.')[1] ?? '').length) : undefined
          )
  );
  const wide = $derived(['email', 'street', 'shift_pattern'].includes(field.key));
</script>

<!-- svelte-ignore a11y_no_static_element_interactions (the key is the field's, wherever in it the focus is) -->
<div
  class={wide ? 'min-[28rem]:col-span-2' : ''}
  onkeydown={(e) => {
    if (e.altKey && e.key === 'ArrowDown') {
      e.preventDefault();
      e.stopPropagation();
      telling = !telling;
    }
  }}
  onfocusout={() => (telling = false)}
>
  {#if field.readOnly || !session.coordinates}
    <Line {id} {label} {note} {noteTone} dotted>
      <input
        {id}
        readonly
        dir="auto"
        value={field.display ?? shownValue(field, value, lists)}
        class="text-soft w-full bg-transparent px-0.5 py-1 font-medium outline-none"
        aria-describedby="{id}-note"
      />
    </Line>
  {:else if field.type === 'date'}
    <DateField {id} {label} value={value || null} {note} {noteTone} {error} onchange={(v) => set(v ?? '')} />
  {:else if field.type === 'person'}
    <PersonPicker {id} {label} {value} shown={field.display ?? ''} {note} {noteTone} {error} onchange={set} />
  {:else if field.options}
    <Picker
      {id}
      {label}
      {value}
      choices={field.options.map((o) => ({ value: o.value, label: o.label[text.language] }))}
      {note}
      {noteTone}
      {error}
      onchange={set}
    />
  {:else if field.list}
    <Picker
      {id}
      {label}
      {value}
      choices={lists
        .filter((o) => o.list === field.list && (!o.retired || o.code === value))
        .map((o) => ({ value: o.code, label: o.name, detail: o.code }))}
      shown={field.display ?? value}
      {note}
      {noteTone}
      {error}
      onchange={set}
    />
  {:else}
    <TextField
      {id}
      {label}
      value={isNumeric(field) ? numeric : value}
      inputmode={isNumeric(field) ? 'decimal' : field.type === 'badge' ? 'numeric' : field.type === 'phone' ? 'tel' : undefined}
      autocomplete="off"
      maxlength={300}
      {note}
      {noteTone}
      {error}
      oninput={(e) => set(e.currentTarget.value)}
    />
  {/if}
</div>

<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { fieldTitle } from '$lib/text/fieldLabels.svelte';
  import { sourceText } from '$lib/text/source';
  import { text } from '$lib/text/index.svelte';
  import Line from '$lib/ui/Line.svelte';
  import { type Editing } from './editing.svelte';
  import { isNumeric, typedOf } from '$lib/text/typed';
  import FieldInput from './FieldInput.svelte';
  import FileField from './FileField.svelte';
  import SealedField from './SealedField.svelte';
  import { shownValue } from './show';
  import { words } from './words';

  /** A field of a record with the editor that fits what it holds, and a small word saying where its value came from. */
  interface Props {
    field: Api['FieldResponse'];
    record: Api['RecordResponse'];
    editing: Editing;
    lists: Api['ListOption'][];
    /** What a rule or a computation gives for it, as the record is being typed. */
    given?: Api['SetValue'];
    /** What is wrong with the value as it stands. */
    misfit?: Api['Misfit'];
    /** "now", the stage from which it will be needed, or nothing, where it is filled or may stay empty. */
    needed?: string;
    /** The value of the field that narrows this one. */
    within: string;
  }
  let { field, record, editing, lists, given, misfit, needed, within }: Props = $props();
  const t = $derived(words());
  const id = $derived(`field-${field.key}`);
  const changed = $derived(field.key in editing.changes);
  const held = $derived(given && !changed ? { type: field.type, value: given.value } : field);
  const value = $derived(editing.changes[field.key] ?? typedOf(held));
  const error = $derived(
    text.problem(editing.errors.find((e) => e.pointer === `/changes/${field.key}`)) ?? (misfit ? text.t.common.misfit[misfit] : undefined)
  );
  const mayChange = $derived(field.access === 'edit' || field.access === 'ask');
  const waits = $derived(record.waiting.find((w) => w.field === field.key));
  let telling = $state(false);
  let replacing = $state(false);
  const isSealed = $derived(field.sensitive && field.value !== null && !changed && !replacing);

  const story = $derived.by(() => {
    const s = text.t.source;
    if (!field.source) return s.empty;
    const parts = [sourceText(field.source)];
    if (field.change) parts.push(`${s.by(field.change.by)} ${s.from(field.change.origin)}`, text.day(field.change.at.slice(0, 10)));
    if (field.change?.why) parts.push(field.change.why);
    if (field.since) parts.push(s.since(text.day(field.since)));
    return parts.join(' · ');
  });
  const note = $derived.by(() => {
    if (telling) return story;
    if (needed) return t.neededFrom(needed);
    if (changed) return text.t.source.you;
    if (waits)
      return t.waits(
        waits.value === null ? '' : (waits.display ?? shownValue(field, typedOf({ type: field.type, value: waits.value }), lists)),
        waits.from && text.shortDay(waits.from),
        waits.askedBy
      );
    const coming = field.coming[0];
    if (coming && !changed)
      return t.coming(
        coming.display ?? shownValue(field, typedOf({ type: field.type, value: coming.value }), lists),
        text.shortDay(coming.from)
      );
    if (given) return given.by.startsWith('rule:') ? text.t.source.rule(fieldTitle(given.by.slice(5))) : text.t.source.computed;
    return [field.source ? sourceText(field.source) : '', field.access === 'ask' ? t.byAsking : ''].filter(Boolean).join(' · ');
  });
  const noteTone = $derived(needed || (waits && !changed && !telling) ? ('ochre' as const) : ('faint' as const));
  // A money value is shown with the decimals it has, at least the minor unit's.
  const numeric = $derived(
    changed
      ? value
      : held.value == null
        ? ''
        : text.number(Number(held.value), field.type === 'money' ? Math.max(2, (String(held.value).split('.')[1] ?? '').length) : undefined)
  );
  const wide = $derived(
    ['email', 'street', 'shift_pattern'].includes(field.key) ||
      ['longText', 'choices', 'file'].includes(field.type) ||
      (field.sensitive && field.value !== null)
  );
  const display = $derived(given && !changed ? given.display : field.display);
  const readShown = $derived(
    display ?? (value === '' ? '' : typeof held.value === 'number' || isNumeric(field) ? numeric : shownValue(field, value, lists))
  );
</script>

<div
  class={wide ? 'min-[28rem]:col-span-2' : ''}
  onkeydowncapture={(e) => {
    if (e.altKey && e.key === 'ArrowDown') {
      e.preventDefault();
      e.stopPropagation();
      telling = !telling;
    }
  }}
  onfocusout={() => (telling = false)}
>
  {#if isSealed}
    <SealedField
      {id}
      employment={record.employmentId}
      {field}
      {note}
      {noteTone}
      replace={mayChange ? () => (replacing = true) : undefined}
    />
  {:else if field.type === 'file'}
    <FileField
      {id}
      employment={record.employmentId}
      {field}
      {value}
      {note}
      {noteTone}
      {error}
      onchange={mayChange ? (v) => editing.set(record, field, v) : undefined}
    />
  {:else if !mayChange}
    <Line {id} label={field.label[text.language]} {note} {noteTone} dotted>
      <input
        {id}
        readonly
        dir="auto"
        value={readShown}
        class="text-soft w-full bg-transparent px-0.5 py-1 font-medium outline-none"
        aria-describedby="{id}-note"
      />
    </Line>
  {:else}
    <FieldInput
      {id}
      {field}
      value={field.sensitive ? (editing.changes[field.key] ?? '') : value}
      {numeric}
      shown={display ?? ''}
      {within}
      {note}
      {noteTone}
      {error}
      onchange={(v) => editing.set(record, field, v)}
    />
  {/if}
</div>

<script lang="ts">
  import type { Api } from '$lib/api/client';
  import ListPicker from '$lib/lists/ListPicker.svelte';
  import ManyPicker from '$lib/lists/ManyPicker.svelte';
  import { text } from '$lib/text/index.svelte';
  import Chips from '$lib/ui/Chips.svelte';
  import DateField from '$lib/ui/DateField.svelte';
  import Line from '$lib/ui/Line.svelte';
  import PersonPicker from '$lib/ui/PersonPicker.svelte';
  import Picker from '$lib/ui/Picker.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { isNumeric } from '$lib/text/typed';
  import { words } from './words';

  /** The editor that fits what a field holds. Values are as they are typed. */
  interface Props {
    id: string;
    field: Pick<Api['FieldResponse'], 'key' | 'type' | 'label' | 'list' | 'options'>;
    value: string;
    /** A number as it is shown while nobody types in it. */
    numeric?: string;
    /** What to show for a person or an entry that is not at hand. */
    shown?: string;
    /** The value of the field that narrows this one; empty where none does. */
    within?: string;
    note?: string;
    noteTone?: 'faint' | 'ochre';
    error?: string;
    onchange: (value: string) => void;
  }
  let { id, field, value, numeric, shown = '', within = '', note, noteTone, error, onchange }: Props = $props();
  const label = $derived(field.label[text.language]);
  const several = $derived(value === '' ? [] : value.split('\n'));
  const offered = $derived(
    (field.options ?? [])
      .filter(
        (o) =>
          (!o.retired || several.includes(o.value)) && (!o.within || within === '' || within.split('\n').some((w) => o.within!.includes(w)))
      )
      .map((o) => ({ value: o.value, label: o.label[text.language] }))
  );
  const nameOf = (v: string) => field.options?.find((o) => o.value === v)?.label[text.language] ?? v;
</script>

{#if field.type === 'date'}
  <DateField {id} {label} value={value || null} {note} {noteTone} {error} onchange={(v) => onchange(v ?? '')} />
{:else if field.type === 'person'}
  <PersonPicker {id} {label} {value} {shown} {note} {noteTone} {error} {onchange} />
{:else if field.type === 'yesNo'}
  {@const choices = [
    { value: 'yes', label: text.t.common.yes },
    { value: 'no', label: text.t.common.no }
  ]}
  <Picker {id} {label} {value} {choices} {note} {noteTone} {error} {onchange} />
{:else if field.type === 'choices' && field.options}
  <Picker
    {id}
    {label}
    value=""
    choices={offered.filter((o) => !several.includes(o.value))}
    {note}
    {noteTone}
    {error}
    onchange={(v) => v && onchange([...several, v].join('\n'))}
  />
  <Chips
    {label}
    chosen={several.map((v) => ({ value: v, label: nameOf(v) }))}
    takeAway={(v) => words().takeAway(nameOf(v))}
    ontake={(v) => onchange(several.filter((o) => o !== v).join('\n'))}
  />
{:else if field.type === 'choices' && field.list}
  <ManyPicker {id} {label} list={field.list} value={several} {note} {error} onchange={(codes) => onchange(codes.join('\n'))} />
{:else if field.options}
  <Picker {id} {label} {value} choices={offered} shown={nameOf(value)} {note} {noteTone} {error} {onchange} />
{:else if field.list}
  <ListPicker {id} {label} list={field.list} {value} shown={shown || value} {note} {noteTone} {error} {onchange} />
{:else if field.type === 'longText'}
  <Line {id} {label} {note} {noteTone} {error}>
    <textarea
      {id}
      {value}
      rows="2"
      maxlength="4000"
      dir="auto"
      class="field-sizing-content max-h-48 w-full bg-transparent px-0.5 py-1 font-medium outline-none"
      aria-describedby="{id}-note"
      aria-invalid={error ? true : undefined}
      oninput={(e) => onchange(e.currentTarget.value)}></textarea>
  </Line>
{:else}
  <TextField
    {id}
    {label}
    value={isNumeric(field) ? (numeric ?? value) : value}
    inputmode={isNumeric(field) ? 'decimal' : field.type === 'phone' ? 'tel' : field.key === 'badge' ? 'numeric' : undefined}
    autocomplete="off"
    maxlength={300}
    {note}
    {noteTone}
    {error}
    oninput={(e) => onchange(e.currentTarget.value)}
  />
{/if}

<script lang="ts">
  import { fold } from '$lib/text/fits';
  import { text } from '$lib/text/index.svelte';
  import CompletingField from '$lib/ui/CompletingField.svelte';
  import { nameOf, type Field } from './configuration';
  import { words } from './words';

  /** A formula over the record's fields: as one types, the fields and functions that fit are offered; what is wrong is marked under
   *  its character. */
  interface Props {
    id: string;
    label: string;
    value: string;
    fields: Field[];
    functions: string[];
    note?: string;
    error?: string;
    /** The character, from 1, at which it is wrong. */
    character?: number;
    onchange: (value: string) => void;
  }
  let { id, label, value, fields, functions, note, error, character, onchange }: Props = $props();
  const w = $derived(words());
  const fits = (word: string) =>
    [...fields.map((f) => ({ put: f.key, name: nameOf(f, text.language) })), ...functions.map((f) => ({ put: `${f}(`, name: '' }))]
      .filter((f) => fold(`${f.put} ${f.name}`).includes(fold(word)) && f.put !== word)
      .slice(0, 6);
</script>

<CompletingField
  {id}
  {label}
  {note}
  error={error && character ? `${error} (${w.sheet.at(character)})` : error}
  {value}
  maxlength={1000}
  word={/[A-Za-z_][A-Za-z0-9_]*$/}
  {fits}
  hint={w.sheet.names}
  {onchange}
>
  {#if error && character}
    <pre aria-hidden="true" class="text-rust overflow-x-hidden text-xs leading-4">{value.slice(Math.max(0, character - 30), character + 20)}
{' '.repeat(Math.min(character - 1, 29))}▲</pre>
  {/if}
</CompletingField>

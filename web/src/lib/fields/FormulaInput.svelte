<script lang="ts">
  import { fold } from '$lib/text/fits';
  import { text } from '$lib/text/index.svelte';
  import TextField from '$lib/ui/TextField.svelte';
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
  let caret = $state(0);
  let focused = $state(false);
  const word = $derived(/[A-Za-z_][A-Za-z0-9_]*$/.exec(value.slice(0, caret))?.[0] ?? '');
  const fitting = $derived(
    focused && word !== ''
      ? [...fields.map((f) => ({ put: f.key, name: nameOf(f, text.language) })), ...functions.map((f) => ({ put: `${f}(`, name: '' }))]
          .filter((f) => fold(`${f.put} ${f.name}`).includes(fold(word)) && f.put !== word)
          .slice(0, 6)
      : []
  );
  function put(text: string) {
    const next = value.slice(0, caret - word.length) + text;
    onchange(next + value.slice(caret));
    requestAnimationFrame(() => {
      const field = document.getElementById(id) as HTMLInputElement | null;
      field?.focus();
      field?.setSelectionRange(next.length, next.length);
      caret = next.length;
    });
  }
</script>

<div class="min-w-0" onfocusin={() => (focused = true)} onfocusout={() => (focused = false)}>
  <TextField
    {id}
    {label}
    {note}
    error={error && character ? `${error} (${w.sheet.at(character)})` : error}
    {value}
    maxlength={1000}
    autocomplete="off"
    spellcheck={false}
    oninput={(e) => {
      caret = e.currentTarget.selectionStart ?? 0;
      onchange(e.currentTarget.value);
    }}
    onkeyup={(e) => (caret = e.currentTarget.selectionStart ?? 0)}
    onclick={(e) => (caret = e.currentTarget.selectionStart ?? 0)}
  />
  {#if error && character}
    <pre aria-hidden="true" class="text-rust overflow-x-hidden text-xs leading-4">{value.slice(Math.max(0, character - 30), character + 20)}
{' '.repeat(Math.min(character - 1, 29))}▲</pre>
  {/if}
  {#if fitting.length > 0}
    <div class="flex flex-wrap gap-1.5 pb-2" role="group" aria-label={w.sheet.names}>
      {#each fitting as fit (fit.put)}
        <button
          type="button"
          class="border-rule hover:bg-band min-h-6 rounded border px-2 text-xs"
          onmousedown={(e) => e.preventDefault()}
          onclick={() => put(fit.put)}><strong>{fit.put}</strong> <span class="text-soft">{fit.name}</span></button
        >
      {/each}
    </div>
  {/if}
</div>

<script lang="ts" module>
  /** Something to put where the cursor stands. */
  export interface Fit {
    put: string;
    /** What it is shown as; otherwise what is put. */
    shown?: string;
    name: string;
  }
</script>

<script lang="ts">
  import type { Snippet } from 'svelte';
  import TextField from './TextField.svelte';

  /** A text in which words are completed: what fits the word before the cursor is offered below. */
  interface Props {
    id: string;
    label: string;
    value: string;
    maxlength: number;
    /** Matches the word that ends where the cursor stands. */
    word: RegExp;
    fits: (word: string) => Fit[];
    /** Says what is offered. */
    hint: string;
    /** Offered at any time; otherwise while one types a word. */
    always?: boolean;
    /** What stays of the text before the word, when something is put. */
    before?: (text: string) => string;
    note?: string;
    error?: string;
    /** Between the field and what is offered. */
    children?: Snippet;
    onchange: (value: string) => void;
  }
  let {
    id,
    label,
    value,
    maxlength,
    word,
    fits,
    hint,
    always = false,
    before = (t) => t,
    note,
    error,
    children,
    onchange
  }: Props = $props();
  let caret = $state(0);
  let focused = $state(false);
  const typed = $derived(word.exec(value.slice(0, caret))?.[0] ?? '');
  const fitting = $derived(always || (focused && typed !== '') ? fits(typed) : []);

  function put(text: string) {
    const next = before(value.slice(0, caret - typed.length)) + text;
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
    {error}
    {value}
    {maxlength}
    autocomplete="off"
    spellcheck={false}
    oninput={(e) => {
      caret = e.currentTarget.selectionStart ?? 0;
      onchange(e.currentTarget.value);
    }}
    onkeyup={(e) => (caret = e.currentTarget.selectionStart ?? 0)}
    onclick={(e) => (caret = e.currentTarget.selectionStart ?? 0)}
  />
  {@render children?.()}
  {#if always || fitting.length > 0}
    <div class="flex flex-wrap gap-1.5 pb-2" role="group" aria-label={hint}>
      {#each fitting as fit (fit.put)}
        <button
          type="button"
          class="border-rule hover:bg-band min-h-6 rounded border px-2 text-xs"
          onmousedown={(e) => e.preventDefault()}
          onclick={() => put(fit.put)}><strong>{fit.shown ?? fit.put}</strong> <span class="text-soft">{fit.name}</span></button
        >
      {/each}
    </div>
  {/if}
</div>

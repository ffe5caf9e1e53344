<script lang="ts">
  import TextField from '$lib/ui/TextField.svelte';
  import { optionName, optionsQuery } from './queries';
  import { words } from './words';

  /** A formula over the codes of a list: as one types, the codes that fit are offered. */
  interface Props {
    id: string;
    label: string;
    list: string;
    value: string;
    /** The entry's own code, which is not offered. */
    without: string;
    note?: string;
    error?: string;
    onchange: (value: string) => void;
  }
  let { id, label, list, value, without, note, error, onchange }: Props = $props();
  const w = $derived(words());
  const options = optionsQuery();
  let caret = $state(0);
  // What is being typed where the cursor stands: letters, digits, hyphens and underscores.
  const word = $derived(/[\p{L}\p{N}_-]*$/u.exec(value.slice(0, caret))?.[0] ?? '');
  const fitting = $derived(
    (options.data?.options ?? [])
      .filter((o) => o.list === list && !o.retired && o.code !== without)
      .filter((o) => word === '' || `${o.code} ${optionName(o)}`.toLowerCase().includes(word.toLowerCase()))
      .slice(0, 8)
  );
  const written = (code: string) => (/^[A-Za-z_][A-Za-z0-9_]*$/.test(code) ? code : `[${code}]`);

  function put(code: string) {
    const before = value.slice(0, caret - word.length).replace(/\[$/, '');
    const next = before + written(code);
    onchange(next + value.slice(caret));
    requestAnimationFrame(() => {
      const field = document.getElementById(id) as HTMLInputElement | null;
      field?.focus();
      field?.setSelectionRange(next.length, next.length);
      caret = next.length;
    });
  }
</script>

<div class="col-span-full min-w-0">
  <TextField
    {id}
    {label}
    {note}
    {error}
    {value}
    maxlength={600}
    autocomplete="off"
    spellcheck={false}
    oninput={(e) => {
      caret = e.currentTarget.selectionStart ?? 0;
      onchange(e.currentTarget.value);
    }}
    onkeyup={(e) => (caret = e.currentTarget.selectionStart ?? 0)}
    onclick={(e) => (caret = e.currentTarget.selectionStart ?? 0)}
  />
  <div class="flex flex-wrap gap-1.5 pb-2" role="group" aria-label={w.formula.hint}>
    {#each fitting as option (option.code)}
      <button type="button" class="border-rule hover:bg-band min-h-6 rounded border px-2 text-xs" onclick={() => put(option.code)}
        ><strong>{option.code}</strong> <span class="text-soft">{optionName(option)}</span></button
      >
    {/each}
  </div>
</div>

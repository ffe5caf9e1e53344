<script lang="ts">
  import CompletingField from '$lib/ui/CompletingField.svelte';
  import { named } from '$lib/text/named';
  import { optionsQuery } from './queries';
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
  const fits = (word: string) =>
    (options.data?.options ?? [])
      .filter((o) => o.list === list && !o.retired && o.code !== without)
      .filter((o) => word === '' || `${o.code} ${named(o)}`.toLowerCase().includes(word.toLowerCase()))
      .slice(0, 8)
      .map((o) => ({ put: written(o.code), shown: o.code, name: named(o) }));
  const written = (code: string) => (/^[A-Za-z_][A-Za-z0-9_]*$/.test(code) ? code : `[${code}]`);
</script>

<div class="col-span-full min-w-0">
  <CompletingField
    {id}
    {label}
    {note}
    {error}
    {value}
    maxlength={600}
    word={/[\p{L}\p{N}_-]*$/u}
    {fits}
    hint={w.formula.hint}
    always
    before={(text) => text.replace(/\[$/, '')}
    {onchange}
  />
</div>

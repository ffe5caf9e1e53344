<script lang="ts">
  import Chips from '$lib/ui/Chips.svelte';
  import ListPicker from './ListPicker.svelte';
  import { nameOf, optionsQuery } from './queries';
  import { words } from './words';

  /** Chooses several entries of a list. */
  interface Props {
    id: string;
    label: string;
    list: string;
    value: string[];
    note?: string;
    error?: string;
    onchange: (value: string[]) => void;
  }
  let { id, label, list, value, note, error, onchange }: Props = $props();
  const options = optionsQuery();
  const w = $derived(words());
  let typed = $state('');
</script>

<div class="min-w-0">
  <ListPicker
    {id}
    {label}
    {list}
    {note}
    {error}
    bind:value={typed}
    without={value}
    onchange={(code) => {
      if (code) onchange([...value, code]);
      typed = '';
    }}
  />
  <Chips
    {label}
    chosen={value.map((code) => ({ value: code, label: nameOf(options.data?.options ?? [], list, code) }))}
    takeAway={w.takeAway}
    ontake={(code) => onchange(value.filter((c) => c !== code))}
  />
</div>

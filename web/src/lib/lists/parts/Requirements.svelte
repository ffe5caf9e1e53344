<script lang="ts">
  import ListPicker from '../ListPicker.svelte';
  import { words } from '../words';
  import Lines from './Lines.svelte';
  import type { PartProps } from './part';
  import Select from './Select.svelte';

  /** Certificates that holders need, each essential or desirable. */
  interface Need {
    certificate: string;
    essential: boolean;
  }
  let { id, label, note, error, value, onchange }: PartProps<Need[]> = $props();
  const w = $derived(words());
  const how = $derived([
    { value: 'yes', label: w.needs.essential },
    { value: 'no', label: w.needs.desirable }
  ]);
</script>

<Lines
  {id}
  {label}
  {note}
  {error}
  items={value ?? []}
  heads={[w.needs.certificate, '']}
  grid="grid-cols-[1fr_8rem_3rem]"
  addLabel={w.needs.add}
  blank={() => ({ certificate: '', essential: true })}
  {onchange}
>
  {#snippet line(need, set, i)}
    <ListPicker
      id="{id}-{i}"
      label={w.needs.certificate}
      quiet
      list="certificates"
      value={need.certificate}
      onchange={(certificate) => set({ certificate })}
    />
    <Select
      label={w.needs.certificate}
      value={need.essential ? 'yes' : 'no'}
      choices={how}
      onchange={(v) => set({ essential: v === 'yes' })}
    />
  {/snippet}
</Lines>

<script lang="ts">
  import { session } from '$lib/api/session.svelte';
  import { words } from '../words';
  import Day from './Day.svelte';
  import Lines from './Lines.svelte';
  import type { PartProps } from './part';
  import PersonByNumber from './PersonByNumber.svelte';

  /** Who leads a department, each from a date. */
  interface Head {
    from: string;
    person: string | null;
  }
  let { id, label, note, error, value, onchange }: PartProps<Head[]> = $props();
  const w = $derived(words());
</script>

<Lines
  {id}
  {label}
  note={(value ?? []).length === 0 ? w.heads.none : note}
  {error}
  items={value ?? []}
  heads={[w.from, w.heads.person]}
  grid="grid-cols-[9rem_1fr_3rem]"
  addLabel={w.heads.add}
  blank={() => ({ from: session.today, person: null })}
  {onchange}
>
  {#snippet line(head, set, i)}
    <Day label={w.from} value={head.from} onchange={(from) => set({ from })} />
    <PersonByNumber id="{id}-{i}" label={w.heads.person} value={head.person ?? ''} onchange={(person) => set({ person: person || null })} />
  {/snippet}
</Lines>

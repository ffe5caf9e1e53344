<script lang="ts">
  import type { HTMLInputAttributes } from 'svelte/elements';
  import Line from './Line.svelte';

  interface Props extends HTMLInputAttributes {
    id: string;
    label: string;
    value: string;
    note?: string;
    noteTone?: 'faint' | 'ochre';
    error?: string;
  }
  let { id, label, value = $bindable(), note, noteTone, error, ...rest }: Props = $props();
</script>

<Line {id} {label} {note} {noteTone} {error}>
  <input
    {id}
    bind:value
    dir="auto"
    class="w-full bg-transparent px-0.5 py-1 font-medium outline-none"
    aria-describedby="{id}-note"
    aria-invalid={error ? true : undefined}
    {...rest}
  />
</Line>

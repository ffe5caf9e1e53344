<script lang="ts">
  import type { Snippet } from 'svelte';
  /** A field written on a line: its label above, the line, and below it a small word about the value, or what is wrong with it. */
  interface Props {
    id: string;
    label: string;
    note?: string;
    noteTone?: 'faint' | 'ochre';
    error?: string;
    /** Inherited values stand on a dotted line. */
    dotted?: boolean;
    /** In a line of several: the label is said and not shown, and there is no room for a note. */
    quiet?: boolean;
    children: Snippet;
  }
  let { id, label, note, noteTone = 'faint', error, dotted = false, quiet = false, children }: Props = $props();
</script>

<div class="min-w-0">
  <label for={id} class={quiet ? 'sr-only' : 'text-soft block truncate text-xs'}>{label}</label>
  <div
    class="focus-within:outline-sea flex min-h-8 items-center border-b focus-within:outline-2 focus-within:outline-offset-0 {dotted
      ? 'border-soft border-dotted'
      : error
        ? 'border-rust'
        : 'border-ink'}"
  >
    {@render children()}
  </div>
  <p
    id="{id}-note"
    class="text-2xs leading-4 {quiet ? '' : 'min-h-4'} {error
      ? 'text-rust font-semibold'
      : noteTone === 'ochre'
        ? 'text-ochre font-semibold'
        : 'text-faint'}"
  >
    {error ?? note ?? ''}
  </p>
</div>

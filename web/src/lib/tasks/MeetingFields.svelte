<script lang="ts">
  import TextField from '$lib/ui/TextField.svelte';
  import { words } from './words';

  /** When and where one meets for a task. */
  interface Props {
    at: string;
    minutes: string;
    place: string;
    note?: (part: string) => string | undefined;
    error?: (part: string) => string | undefined;
    onchange: (part: 'at' | 'minutes' | 'place', typed: string) => void;
  }
  let { at, minutes, place, note = () => undefined, error = () => undefined, onchange }: Props = $props();
  const w = $derived(words().meeting);
</script>

{#snippet field(part: 'at' | 'minutes' | 'place', value: string, hint: string, most: number)}
  <TextField
    id="task-{part}"
    label={w[part]}
    {value}
    maxlength={most}
    note={note(part) ?? hint}
    error={error(part)}
    oninput={(e) => onchange(part, e.currentTarget.value)}
  />
{/snippet}
{@render field('at', at, w.atNote, 5)}
{@render field('minutes', minutes, w.minutesNote, 5)}
{@render field('place', place, '', 200)}

<script lang="ts">
  import { api, ApiProblem, data } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import { untrack } from 'svelte';
  import Line from './Line.svelte';

  /** A date typed freely; the server reads it, and it is echoed in full. */
  interface Props {
    id: string;
    label: string;
    /** ISO, or null for none. */
    value: string | null;
    note?: string;
    noteTone?: 'faint' | 'ochre';
    error?: string;
    onchange?: (value: string | null) => void;
  }
  let { id, label, value = $bindable(), note, noteTone, error, onchange }: Props = $props();
  let typed = $state(untrack(() => (value ? text.day(value) : '')));
  let wrong = $state<string>();
  let shown = untrack(() => value);

  // A value from outside is shown; what is being typed is left alone.
  $effect(() => {
    if (value !== shown) {
      shown = value;
      typed = value ? text.day(value) : '';
      wrong = undefined;
    }
  });

  async function read() {
    const entered = typed.trim();
    if (entered === '') return take(null);
    if (value && entered === text.day(value)) return;
    try {
      const answer = await data(api.GET('/api/dates', { params: { query: { text: entered } } }));
      if (typed.trim() === entered) take(answer.date);
    } catch (e) {
      wrong = e instanceof ApiProblem && e.status === 400 ? text.problem(e.errors[0]) : text.failure(e);
    }
  }

  function take(date: string | null) {
    wrong = undefined;
    shown = value = date;
    typed = date ? text.day(date) : '';
    onchange?.(date);
  }
</script>

<Line {id} {label} note={note ?? (value ? text.distance(value) : text.t.common.dateHint)} {noteTone} error={wrong ?? error}>
  <input
    {id}
    bind:value={typed}
    autocomplete="off"
    class="w-full bg-transparent px-0.5 py-1 font-medium outline-none"
    aria-describedby="{id}-note"
    aria-invalid={wrong || error ? true : undefined}
    onblur={read}
    onkeydown={(e) => e.key === 'Enter' && void read()}
  />
</Line>

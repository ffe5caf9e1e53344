<script lang="ts">
  import { decimal } from '$lib/text/decimal';
  import { text } from '$lib/text/index.svelte';
  import { untrack } from 'svelte';
  import UnlabelledInput from './UnlabelledInput.svelte';

  /** A number in a line of several, with the reader's decimal mark. What is no number is passed on as typed, for the server to refuse at its place. */
  let { id, label, value, onchange }: { id?: string; label: string; value: unknown; onchange: (value: unknown) => void } = $props();
  const show = (v: unknown) => (typeof v === 'number' ? text.number(v) : v == null ? '' : String(v));
  function read(entered: string) {
    const minus = entered.trim().startsWith('-');
    const number = decimal(minus ? entered.trim().slice(1) : entered);
    return number === undefined ? undefined : minus ? -number : number;
  }
  let typed = $state(untrack(() => show(value)));
  let sent = untrack(() => value);
  $effect(() => {
    if (value !== sent) {
      sent = value;
      typed = show(value);
    }
  });
</script>

<UnlabelledInput
  {id}
  {label}
  value={typed}
  inputmode="decimal"
  oninput={(e) => {
    typed = e.currentTarget.value;
    sent = typed.trim() === '' ? null : (read(typed) ?? typed);
    onchange(sent);
  }}
/>

<script lang="ts">
  import UnlabelledInput from './UnlabelledInput.svelte';
  /** A date in a line of several, by the browser's own means. */
  let { label, value, onchange }: { label: string; value: string; onchange: (value: string) => void } = $props();
</script>

<UnlabelledInput {label} type="date" {value} onchange={(e) => onchange(e.currentTarget.value)} />

<script lang="ts">
  import Small from './Small.svelte';
  /** A date in a line of several, by the browser's own means. */
  let { label, value, onchange }: { label: string; value: string; onchange: (value: string) => void } = $props();
</script>

<Small {label} type="date" {value} onchange={(e) => onchange(e.currentTarget.value)} />

<script lang="ts">
  /** One of a few words, in a line of several. */
  let {
    label,
    value,
    choices,
    onchange
  }: { label: string; value: string; choices: { value: string; label: string }[]; onchange: (value: string) => void } = $props();
</script>

<select
  aria-label={label}
  {value}
  onchange={(e) => onchange(e.currentTarget.value)}
  class="border-rule bg-sheet focus:border-ink min-h-8 w-full min-w-0 border-b font-medium"
>
  {#each choices as choice (choice.value)}<option value={choice.value}>{choice.label}</option>{/each}
</select>

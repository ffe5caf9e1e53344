<script lang="ts">
  /** What is chosen of several, each with a way to take it away again. */
  interface Props {
    label: string;
    chosen: { value: string; label: string }[];
    takeAway: (value: string) => string;
    ontake: (value: string) => void;
  }
  let { label, chosen, takeAway, ontake }: Props = $props();
</script>

<ul class="flex flex-wrap gap-1.5 pb-2" aria-label={label}>
  {#each chosen as { value, label: name } (value)}
    <li class="border-rule bg-sheet flex items-center rounded border pl-2 text-xs">
      <bdi>{name}</bdi>
      <button type="button" class="text-soft hover:text-rust min-h-6 px-1.5" aria-label={takeAway(value)} onclick={() => ontake(value)}
        >✕</button
      >
    </li>
  {/each}
</ul>

<script lang="ts">
  /** A text written in Markdown. What reads it is fetched when there is a text to read: until then it stands as it was written. */
  let { text }: { text: string } = $props();
</script>

{#await import('./markdown')}
  <div class="markdown whitespace-pre-line" dir="auto">{text}</div>
{:then { render }}
  <!-- eslint-disable-next-line svelte/no-at-html-tags -- made by the library with HTML of the writer's own switched off -->
  <div class="markdown" dir="auto">{@html render(text)}</div>
{/await}

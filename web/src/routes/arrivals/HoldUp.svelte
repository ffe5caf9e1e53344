<script lang="ts">
  import { dueWords } from '$lib/hires/due';
  import { text } from '$lib/text/index.svelte';
  import { fieldLabel } from '$lib/text/fieldLabels.svelte';
  import type { Row } from './arrivals';

  /** What holds a hire up, in two lines: the thing, and with whom and by when. */
  let { row }: { row: Row } = $props();
  const t = $derived(text.t.arrivals);
  const h = $derived(row.holdUp);
  // A gap in the record comes before a task that has time; nothing comes before a task that is short of it.
  const record = $derived(row.missing.length > 0 && (h === null || h.slack >= 0));
  const tone = $derived(
    record
      ? 'text-ochre'
      : h === null
        ? 'text-soft'
        : !h.beforeKnown && (h.slack < 0 || h.state === 'late')
          ? 'text-rust'
          : h.slack <= 1
            ? 'text-ochre'
            : 'text-ink'
  );
</script>

{#if record}
  <p class="leading-tight font-semibold {tone}">{t.recordLacks(text.list(row.missing.map(fieldLabel)))}</p>
  <p class="text-soft text-xs">{text.owner('coordinator', null)}</p>
{:else if h}
  <p class="leading-tight font-semibold {tone}">
    {h.slack < 0 && h.state !== 'late' && h.work > 1 ? t.needsDays(h.name, h.work, h.left) : h.name}
  </p>
  <p class="text-soft text-xs">
    {text.owner(h.owner, h.ownerName)} · {h.beforeKnown
      ? text.t.state.beforeKnown
      : h.slack < 0
        ? h.state === 'late'
          ? t.late(-h.slack)
          : t.short(-h.slack)
        : dueWords(h)}
  </p>
{:else}
  <p class="text-soft">{row.open === 0 ? t.settled : t.nothingHolds}</p>
{/if}

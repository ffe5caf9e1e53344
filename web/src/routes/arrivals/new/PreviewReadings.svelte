<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { fieldLabel } from '$lib/text/fieldLabels.svelte';
  import { text } from '$lib/text/index.svelte';
  import { words } from '$lib/hires/words';

  /** What a hire being typed comes to: how much is filled, whether it can be ready, whose work it is. */
  interface Props {
    preview: Api['HirePreview'];
    start: string | null;
    takeSoonest: (day: string) => void;
  }
  let { preview, start, takeSoonest }: Props = $props();
  const t = $derived(words().newHire);
  const wait = $derived(preview.of - preview.filled - preview.missing.length);
  const tasks = $derived(preview.owners.reduce((sum, o) => sum + o.count, 0));
</script>

<div aria-live="polite" class="divide-rule divide-y">
  <p class="text-soft pb-3 text-xs"><span class="text-ink text-xl font-bold">{preview.filled}</span> {t.filled(preview.of, wait)}</p>
  {#if start && preview.feasible !== null}
    <div class="py-3">
      {#if preview.feasible}
        <p class="text-sea font-semibold">{t.ready(text.day(start))}</p>
      {:else}
        <p>
          <strong class="text-rust">{t.notReady(text.day(start))}</strong>
          {#if preview.holdUp}<span class="text-soft">{t.takes(preview.holdUp.name, preview.holdUp.work, preview.holdUp.left)}</span>{/if}
        </p>
        {#if preview.soonestStart}
          <p class="mt-1">
            {t.soonest} <strong>{text.day(preview.soonestStart)}</strong>
            <button type="button" class="link ml-1" onclick={() => takeSoonest(preview.soonestStart!)}>{t.take}</button>
          </p>
        {/if}
      {/if}
    </div>
  {/if}
  {#if preview.missing.length > 0}
    <p class="text-ochre py-3">{t.lacks(text.list(preview.missing.map(fieldLabel)))}</p>
  {/if}
  <p class="text-soft py-3">
    {t.tasksFor(tasks)}
    <strong class="text-ink">{preview.owners.map((o) => `${text.owner(o.owner, o.ownerName)} ${o.count}`).join(', ')}</strong>
  </p>
</div>

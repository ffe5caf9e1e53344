<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { words } from './words';

  /** What differs between two configurations, a line a field. */
  let { differences, label }: { differences: Api['FieldDifference'][]; label: (key: string) => string } = $props();
  const w = $derived(words().publishing);
</script>

<ul class="max-h-72 overflow-y-auto">
  {#each differences as difference, i (i)}
    <li class="border-rule border-b py-1">
      {#if difference.field === null}{w.kinds[difference.kind]}{:else}
        <strong>{label(difference.field)}</strong>
        <span class="text-soft text-xs">{w.kinds[difference.kind]}</span>
        <ul class="pl-4 text-xs">
          {#each difference.parts as part (part.part)}
            <li class="break-words">
              <span class="text-soft">{part.part}</span> <code>{part.before ?? '–'}</code> → <code>{part.after ?? '–'}</code>
            </li>
          {/each}
        </ul>
      {/if}
    </li>
  {/each}
</ul>

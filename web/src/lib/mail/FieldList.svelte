<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import { words } from './words';

  /** What a text can name: chosen, it is put where the cursor was. */
  let { fields, insert }: { fields: Api['MailField'][]; insert: (liquid: string) => void } = $props();
  const w = $derived(words().texts);
</script>

<details class="py-1">
  <summary class="cursor-pointer font-semibold">{w.fields}</summary>
  <ul class="columns-1 gap-x-6 py-1 sm:columns-2">
    {#each fields as field (field.insert)}
      <li class="break-inside-avoid py-0.5">
        <button type="button" class="link text-left" onclick={() => insert(field.insert)}>{field.label[text.language]}</button>
      </li>
    {/each}
  </ul>
</details>

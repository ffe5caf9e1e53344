<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import { untrack } from 'svelte';
  import type { Editing } from './editing.svelte';
  import { shownValue } from './show';
  import { words } from './words';

  /** Two people saved one record: both versions side by side, and the choice for each field. */
  interface Props {
    editing: Editing;
    lists: Api['ListOption'][];
    resolved: (now: Api['RecordResponse']) => void;
  }
  let { editing, lists, resolved }: Props = $props();
  const t = $derived(words());
  const conflicts = untrack(() => editing.conflicts());
  let ours = $state<Record<string, boolean>>({});
  let open = $state(true);

  function goOn() {
    resolved(editing.resolve(ours));
    open = false;
  }
</script>

<!-- Put away without choosing, what the other saved stands and nothing of ours is lost: the changes stay as typed. -->
<Dialog
  bind:open
  title={t.staleTitle}
  onclose={() => resolved(editing.resolve(Object.fromEntries(conflicts.map((c) => [c.field.key, true]))))}
>
  <div class="px-5 pt-2 pb-5">
    <p class="text-soft">{t.stale}</p>
    {#if conflicts.length > 0}
      <table class="mt-3 w-full">
        <thead class="border-ink text-soft border-b text-left text-xs">
          <tr><th class="py-1 font-normal">{t.field}</th><th class="font-normal">{t.theirs}</th><th class="font-normal">{t.yours}</th></tr>
        </thead>
        <tbody>
          {#each conflicts as c (c.field.key)}
            {@const name = `keep-${c.field.key}`}
            <tr class="border-rule border-b">
              <th scope="row" class="py-1.5 pr-3 text-left font-semibold">{c.field.label[text.language]}</th>
              <td class="pr-3">
                <label class="flex items-center gap-2"
                  ><input type="radio" {name} checked={!ours[c.field.key]} onchange={() => (ours[c.field.key] = false)} />
                  <bdi>{c.field.display ?? shownValue(c.field, c.theirs, lists)}</bdi></label
                >
              </td>
              <td>
                <label class="flex items-center gap-2"
                  ><input type="radio" {name} checked={ours[c.field.key] ?? false} onchange={() => (ours[c.field.key] = true)} />
                  <bdi>{shownValue(c.field, c.ours, lists)}</bdi></label
                >
              </td>
            </tr>
          {/each}
        </tbody>
      </table>
    {/if}
    <div class="mt-4 flex justify-end"><Button look="primary" onclick={goOn}>{t.goOn}</Button></div>
  </div>
</Dialog>

<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import { words } from './words';

  /** The revisions that were made, each with the way back. */
  interface Props {
    made: Api['MadeRevision'][];
    busy: boolean;
    onundo: (id: string) => void;
  }
  let { made, busy, onundo }: Props = $props();
  const w = $derived(words());
  const rule = (r: Api['MadeRevision']) =>
    [
      r.percent > 0 ? w.percentOf(text.number(r.percent)) : '',
      r.atLeastHourly > 0 ? w.atLeastOf(text.number(r.atLeastHourly, 2)) : '',
      r.upToBand ? w.upTo : ''
    ]
      .filter(Boolean)
      .join(', ');
</script>

<section class="pt-8">
  <h2 class="border-ink border-b pb-1 text-lg">{w.madeBefore}</h2>
  <ul>
    {#each made as one (one.id)}
      <li class="border-rule flex flex-wrap items-baseline gap-x-6 gap-y-1 border-b py-2" data-revision={one.id}>
        <span class="w-28 font-semibold {one.undoneByName ? 'line-through' : ''}">{text.day(one.from)}</span>
        <span class="min-w-0 flex-1 basis-64">
          <span class={one.undoneByName ? 'text-soft line-through' : ''}>{one.group.join(', ') || w.everybody}: {rule(one)}</span>
          <span class="text-soft block text-xs"><bdi>{one.why}</bdi> · {w.by(one.byName, text.day(one.at.slice(0, 10)))}</span>
        </span>
        <span class="text-soft tabular-nums">{w.people(one.people)}, {text.money(one.budget)}</span>
        <span class="w-40 text-right">
          {#if one.undoneByName}<span class="text-ochre text-xs font-semibold">{w.undoneBy(one.undoneByName)}</span>
          {:else}<Button disabled={busy} onclick={() => onundo(one.id)} aria-label={w.undoOf(text.day(one.from))}>{w.undo}</Button>{/if}
        </span>
      </li>
    {/each}
  </ul>
</section>

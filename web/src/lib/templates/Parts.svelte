<script lang="ts">
  import { text } from '$lib/text/index.svelte';
  import type { LayerLook } from './layers';
  import type { Part } from './spec';
  import { words } from './words';

  /** The parts of a template with what an example has of each, and the layers it is made of. */
  interface Props {
    parts: Part[];
    part: Part;
    counts: Partial<Record<Part, number>>;
    wrong: Part[];
    looks: LayerLook[];
    edited: string;
    onpart: (part: Part) => void;
  }
  let { parts, part, counts, wrong, looks, edited, onpart }: Props = $props();
  const w = $derived(words());
  const addOns = $derived(looks.filter((l) => l.isAddOn && l.code !== edited).map((l) => l.name));
</script>

<nav aria-label={w.partsLabel} class="border-rule lg:border-r lg:pr-0">
  <ul class="flex flex-wrap lg:block">
    {#each parts as p (p)}
      <li>
        <button
          type="button"
          aria-current={part === p ? 'true' : undefined}
          class="flex min-h-9 w-full items-center justify-between gap-3 border-l-4 px-3 py-1.5 text-left font-semibold {part === p
            ? 'border-sea bg-sheet'
            : 'hover:bg-band border-transparent'}"
          onclick={() => onpart(p)}
        >
          <span
            >{w.parts[p]}{#if wrong.includes(p)}<span class="text-rust" aria-hidden="true"> ▲</span>{/if}</span
          >
          {#if counts[p] !== undefined}<span class="text-soft text-xs tabular-nums">{counts[p]}</span>{/if}
        </button>
      </li>
    {/each}
  </ul>
  {#if looks.length > 0}
    <h2 class="px-3 pt-5 pb-1 font-sans text-xs font-semibold">{w.layers}</h2>
    <ul class="px-3">
      {#each looks as look (look.id)}
        <li class="flex items-center gap-2 py-1 text-xs">
          <span class="h-[3px] w-5 shrink-0 {look.tone}" aria-hidden="true"></span>
          {#if look.code === edited}<strong>{look.name}</strong>{:else}<a class="hover:underline" href="/templates/{look.code}"
              >{look.name}</a
            >{/if}
        </li>
      {/each}
    </ul>
    {#if addOns.length > 0}<p class="text-soft px-3 pt-1 text-xs">{w.layersNote(text.list(addOns), addOns.length)}</p>{/if}
  {/if}
</nav>

<script lang="ts" generics="Item">
  import { createWindowVirtualizer, defaultRangeExtractor, type Range, type Virtualizer } from '@tanstack/svelte-virtual';
  import { tick, untrack, type Snippet } from 'svelte';
  import { get } from 'svelte/store';

  /** Hundreds of rows that scroll with the page: those in view and a few around them are laid out. */
  interface Props {
    items: Item[];
    id: (item: Item) => string;
    /** What a row is likely to be high, in pixels, until it is measured. */
    height: number;
    row: Snippet<[Item, number]>;
    /** The row that stays in the page wherever it is scrolled to, since it has the focus. */
    kept?: number | undefined;
    role: 'rowgroup' | 'list';
  }
  let { items, id, height, row, kept = -1, role }: Props = $props();
  let box = $state<HTMLElement>();
  let above = $state(0);

  const options = () => ({
    count: items.length,
    estimateSize: () => height,
    getItemKey: (index: number) => id(items[index]!),
    overscan: 6,
    scrollMargin: above,
    // Clear of the head that stays above the rows, and of the sheet that rises below them.
    scrollPaddingStart: 40,
    scrollPaddingEnd: 140,
    // Measured when the browser has laid it out anyway: asking at once would have it lay out the page once a row.
    measureElement: (element: HTMLElement, entry: ResizeObserverEntry | undefined, rows: Virtualizer<Window, HTMLElement>) =>
      Math.round(entry?.borderBoxSize[0]?.blockSize ?? rows.measurementsCache[rows.indexFromElement(element)]?.size ?? height),
    rangeExtractor: (range: Range) => {
      const shown = defaultRangeExtractor(range);
      return kept < 0 || kept >= range.count || shown.includes(kept) ? shown : [...shown, kept].sort((a, b) => a - b);
    }
  });
  const virtual = untrack(() => createWindowVirtualizer<HTMLElement>(options()));
  $effect(() => {
    // Whatever above the rows grows or shrinks makes the page do so too.
    const look = new ResizeObserver(() => (above = box ? Math.round(box.getBoundingClientRect().top + window.scrollY) : 0));
    look.observe(document.body);
    return () => look.disconnect();
  });
  $effect(() => {
    const next = options();
    untrack(() => get(virtual).setOptions(next));
  });
  const measured = (element: HTMLElement) => {
    get(virtual).measureElement(element);
    return { destroy: () => get(virtual).measureElement(null) };
  };

  /** Scrolls to a row and gives the focus to what of it takes the focus. */
  export async function focus(index: number, selector: string) {
    get(virtual).scrollToIndex(index, { align: 'auto' });
    await tick();
    const target = box?.querySelector<HTMLElement>(selector);
    target?.focus({ preventScroll: true });
    // Into sight, clear of what stands over the rows above and below.
    target?.scrollIntoView({ block: 'nearest' });
  }
</script>

<div bind:this={box} {role} class="relative" style:height="{$virtual.getTotalSize()}px">
  {#each $virtual.getVirtualItems() as place (place.key)}
    {@const item = items[place.index]}
    {#if item !== undefined}
      <div
        role="presentation"
        data-index={place.index}
        use:measured
        class="absolute inset-x-0 top-0 [contain:layout_style]"
        style:transform="translateY({place.start - $virtual.options.scrollMargin}px)"
      >
        {@render row(item, place.index)}
      </div>
    {/if}
  {/each}
</div>

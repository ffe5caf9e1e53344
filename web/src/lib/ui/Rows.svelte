<script lang="ts" generics="Item">
  import type { Snippet } from 'svelte';
  import type VirtualRows from './VirtualRows.svelte';

  /** Rows that scroll with the page: all of them where they are few; of hundreds what is in view, by a part fetched only for those. */
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
  const most = 200;
  let box = $state<HTMLElement>();
  let virtual = $state<VirtualRows<Item>>();

  /** Scrolls to a row and gives the focus to what of it takes the focus. */
  export async function focus(index: number, selector: string) {
    if (virtual) {
      await virtual.focus(index, selector);
      return;
    }
    const target = box?.querySelector<HTMLElement>(selector);
    target?.focus({ preventScroll: true });
    target?.scrollIntoView({ block: 'nearest' });
  }
</script>

{#if items.length <= most}
  <div bind:this={box} {role}>
    {#each items as item, i (id(item))}
      {@render row(item, i)}
    {/each}
  </div>
{:else}
  {#await import('./VirtualRows.svelte') then { default: Virtual }}
    <Virtual bind:this={virtual} {items} {id} {height} {row} {kept} {role} />
  {/await}
{/if}

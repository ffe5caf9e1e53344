<script lang="ts" generics="T">
  import type { Snippet } from 'svelte';
  import { words } from '../words';

  /** Several parts of one value, a line each: changed in place, taken away, added. */
  interface Props {
    id: string;
    label: string;
    note?: string;
    error?: string;
    items: T[];
    /** What each line's columns are called. */
    heads: string[];
    /** Tailwind's grid columns for a line. */
    grid: string;
    addLabel: string;
    blank: () => T;
    line: Snippet<[T, (change: Partial<T>) => void, number]>;
    onchange: (items: T[]) => void;
    ordered?: boolean;
  }
  let { id, label, note, error, items, heads, grid, addLabel, blank, line, onchange, ordered = false }: Props = $props();
  const w = $derived(words());
  const change = (i: number, part: Partial<T>) => onchange(items.map((item, k) => (k === i ? { ...item, ...part } : item)));
  function move(i: number, by: number) {
    const next = [...items];
    const [taken] = next.splice(i, 1);
    next.splice(i + by, 0, taken!);
    onchange(next);
  }
  function add() {
    onchange([...items, blank()]);
    requestAnimationFrame(() =>
      document
        .getElementById(id)
        ?.querySelector<HTMLElement>(`[data-line="${items.length - 1}"] :is(input, select)`)
        ?.focus()
    );
  }
</script>

<fieldset {id} class="col-span-full min-w-0">
  <legend class="text-soft text-xs">{label}</legend>
  {#if items.length > 0}
    <div class="text-faint text-2xs hidden gap-3 pt-1 sm:grid {grid}" aria-hidden="true">
      {#each heads as head (head)}<span>{head}</span>{/each}
    </div>
  {/if}
  <ul>
    {#each items as item, i (i)}
      <li class="border-rule grid items-center gap-x-3 gap-y-1 border-b py-1 {grid}" data-line={i}>
        {@render line(item, (part) => change(i, part), i)}
        <span class="flex justify-end gap-1">
          {#if ordered}
            <button type="button" class="link px-1" disabled={i === 0} aria-label="{w.options.up}, {i + 1}" onclick={() => move(i, -1)}
              >↑</button
            >
            <button
              type="button"
              class="link px-1"
              disabled={i === items.length - 1}
              aria-label="{w.options.down}, {i + 1}"
              onclick={() => move(i, 1)}>↓</button
            >
          {/if}
          <button
            type="button"
            class="text-soft hover:text-rust px-1.5"
            aria-label={w.takeAway(`${label} ${i + 1}`)}
            onclick={() => onchange(items.filter((_, k) => k !== i))}>✕</button
          >
        </span>
      </li>
    {/each}
  </ul>
  <p class="pt-1"><button type="button" class="link text-xs font-semibold" onclick={add}>{addLabel}</button></p>
  <p class="text-2xs min-h-4 {error ? 'text-rust font-semibold' : 'text-faint'}">{error ?? note ?? ''}</p>
</fieldset>

<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { offsetWords } from './shown';
  import { words } from './words';

  /** A date counted from the start or the acceptance; none where no number is given. */
  interface Props {
    id: string;
    label: string;
    value: unknown;
    /** What the template is for: the days it can be counted from are called by that. */
    occasion: Api['Occasion'];
    note?: string;
    error?: string;
    disabled?: boolean;
    onchange: (value: unknown) => void;
  }
  let { id, label, value, occasion, note, error, disabled = false, onchange }: Props = $props();
  const o = $derived(words().offset);
  const held = $derived(
    typeof value === 'object' && value !== null && 'anchor' in value
      ? (value as { anchor: string; offset: number; unit: string })
      : undefined
  );
  const before = $derived((held?.offset ?? -1) < 0);
  const set = (change: Partial<{ anchor: string; offset: number; unit: string }>) =>
    onchange({ anchor: 'start', offset: 0, unit: 'working', ...held, ...change });
  const select = 'min-h-8 min-w-0 bg-transparent text-sm';
</script>

<fieldset class="min-w-0" {disabled}>
  <legend class="text-soft text-xs">{label}</legend>
  <div class="flex items-center gap-1 border-b {error ? 'border-rust' : 'border-ink'}">
    <input
      {id}
      aria-label={`${label}: ${o.amount}`}
      aria-describedby="{id}-note"
      inputmode="numeric"
      value={held ? Math.abs(held.offset) : ''}
      class="min-h-8 w-8 bg-transparent px-0.5 font-medium outline-none"
      onchange={(e) => {
        const typed = e.currentTarget.value.trim();
        if (typed === '') onchange(null);
        else if (/^\d{1,4}$/.test(typed)) set({ offset: before ? -Number(typed) : Number(typed) });
        else e.currentTarget.value = held ? String(Math.abs(held.offset)) : '';
      }}
    />
    {#if held}
      <select
        class={select}
        aria-label={`${label}: ${o.unitLabel}`}
        value={held.unit}
        onchange={(e) => set({ unit: e.currentTarget.value })}
      >
        {#each Object.entries(o.unit) as [unit, name] (unit)}<option value={unit}>{name}</option>{/each}
      </select>
      <select
        class={select}
        aria-label={`${label}: ${o.sideLabel}`}
        value={held.offset < 0 ? 'before' : 'after'}
        onchange={(e) => set({ offset: e.currentTarget.value === 'before' ? -Math.abs(held.offset) : Math.abs(held.offset) })}
      >
        <option value="before">{o.side.before}</option>
        <option value="after">{o.side.after}</option>
      </select>
      <select
        class={select}
        aria-label={`${label}: ${o.anchorLabel}`}
        value={held.anchor}
        onchange={(e) => set({ anchor: e.currentTarget.value })}
      >
        {#each Object.entries(o.anchor[occasion] ?? {}) as [anchor, name] (anchor)}<option value={anchor}>{name}</option>{/each}
      </select>
    {/if}
  </div>
  <p id="{id}-note" class="text-2xs min-h-4 leading-4 {error ? 'text-rust font-semibold' : 'text-faint'}">
    {error ?? note ?? offsetWords(value, occasion) ?? ''}
  </p>
</fieldset>

<script lang="ts">
  import type { GridRow } from '$lib/hires/hireGrid.svelte';
  import { aboutKnown, fullName, whyKnown } from '$lib/hires/known';
  import type { ManyHires } from '$lib/hires/manyHires.svelte';
  import { words } from '$lib/hires/words';
  import { fieldTitle } from '$lib/text/fieldLabels.svelte';

  /** Under a row: whom it was said to be, whom it may be, and the row it may be the same person as. */
  interface Props {
    many: ManyHires;
    row: GridRow;
    /** Its place, from 0. */
    at: number;
    /** Something was said of it. */
    decided: () => void;
    /** Something else of it changed. */
    changed: () => void;
  }
  let { many, row, at, decided, changed }: Props = $props();
  const w = $derived(words().many);
  const k = $derived(words().opening.known);
  const grid = $derived(many.grid);
  const maybe = $derived(grid.maybe(row));
  const twin = $derived(grid.twin(row));
  const across = $derived(many.columns.length + 1);
</script>

{#snippet choice(label: string, choose: () => void)}
  <button
    type="button"
    class="link px-2"
    onclick={() => {
      choose();
      decided();
    }}>{label}</button
  >
{/snippet}

{#if row.person}
  <tr class="bg-sea-tint">
    <td></td>
    <td colspan={across} class="px-1 py-1 text-xs">
      <strong>{k.chosen(row.person.name)}</strong>
      {#if row.person.secondStint}
        <strong class="text-ochre">{k.secondStint}</strong>
        <label class="inline-flex items-center gap-1.5"
          ><input type="checkbox" bind:checked={row.person.meant} onclick={() => grid.before()} onchange={changed} />{k.meant}</label
        >
      {/if}
      {#if row.person.reuse.length > 0}· {k.reuse}: {row.person.reuse.map((r) => `${fieldTitle(r.field)} ${r.shown}`).join(', ')}{/if}
      {@render choice(k.else, () => many.isElse(row))}
    </td>
  </tr>
{:else if maybe}
  <tr class="bg-ochre-tint">
    <td></td>
    <td colspan={across} class="px-1 py-1 text-xs" aria-live="polite">
      {k.title} <strong>{fullName(maybe)}</strong>
      {aboutKnown(maybe)}, {whyKnown(maybe)}
      {#if maybe.secondStint}<a class="link px-2" href="/people/{maybe.employmentId}">{k.record}</a>{/if}
      {@render choice(k.choose, () => many.isOf(row, maybe))}
      {@render choice(k.else, () => grid.isNot(row, maybe.personId))}
    </td>
  </tr>
{/if}
{#if twin}
  <tr class="bg-ochre-tint">
    <td></td>
    <td colspan={across} class="px-1 py-1 text-xs" aria-live="polite">
      <strong>{w.twin(grid.rows.indexOf(twin) + 1)}</strong>
      {@render choice(w.remove(at + 1), () => grid.remove(row.id))}
      {@render choice(w.two, () => grid.isNot(row, twin.id))}
    </td>
  </tr>
{/if}

<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { fieldLabel } from '$lib/text/fieldLabels.svelte';
  import { text } from '$lib/text/index.svelte';
  import { isChecked } from './payCheckLine';
  import { words } from './words';

  /** Somebody whose pay begins, changes or ends: what is new, what stands against it, old and new, and the tick. */
  interface Props {
    line: Api['PayCheckLine'];
    selected: boolean;
    /** Whether it is the one that is reached by keys while none is selected. */
    first: boolean;
    mayCheck: boolean;
    busy: boolean;
    onselect: () => void;
    oncheck: () => void;
  }
  let { line, selected, first, mayCheck, busy, onselect, oncheck }: Props = $props();
  const w = $derived(words());
  const by = $derived(line.difference);
  const amount = (n: number | null | undefined) => (n === null || n === undefined ? w.none : text.number(n, 2));
  const news = (n: Api['PayNews']) => {
    // Hours are said as they are typed; money with its cents.
    const number = (of: number) => text.number(of, n.kind === 'hours' ? undefined : 2);
    const change = n.before !== null && n.after !== null ? ` (${w.change(number(n.before), number(n.after))})` : '';
    return w.news[n.kind](text.day(n.day)) + change;
  };
  const finding = (f: Api['PayCheckFinding']) => {
    const number =
      f.number === null ? '' : f.kind === 'negativeNet' || f.kind === 'unlikeTemplate' ? text.number(f.number, 2) : String(f.number);
    return w.findings[f.kind](
      f.kind === 'outsideBand' ? number.replace('.', text.language === 'de' ? ',' : '.') : number,
      f.run ? text.day(f.run.payDate) : ''
    );
  };
  const changed = $derived(line.check && !line.check.holds ? line.check.changedSince.map((f) => w.facts[f] ?? fieldLabel(f)) : []);
</script>

<!-- svelte-ignore a11y_click_events_have_key_events (the keys of the page do the same) -->
<div
  role="row"
  data-key={line.employmentId}
  tabindex={selected || first ? 0 : -1}
  aria-selected={selected}
  class="pay-line border-rule border-b py-1.5 {selected ? 'bg-sheet outline-sea outline-2 -outline-offset-2' : ''}"
  onfocus={onselect}
  onclick={onselect}
>
  <div role="gridcell" class="who min-w-0 pl-3">
    <p class="truncate font-semibold"><bdi>{line.name}</bdi></p>
    <p class="text-soft text-xs">{line.news.map(news).join(', ')}</p>
  </div>
  <div role="gridcell" class="against min-w-0 font-semibold">
    {#each line.findings as one (one.kind)}<p class={one.stops ? 'text-rust' : 'text-ochre'}>{finding(one)}</p>{/each}
    {#if line.check && !line.check.holds}<p class="text-ochre">{w.changedSince(text.list(changed))}</p>{/if}
  </div>
  <div role="gridcell" class="last text-soft text-right tabular-nums">
    <span class="narrow-label">{w.columns.last}</span>{amount(line.lastGross)}
  </div>
  <div role="gridcell" class="now text-right font-semibold tabular-nums">
    <span class="narrow-label font-normal">{w.columns.now}</span>{amount(line.amounts?.gross)}
  </div>
  <div role="gridcell" class="difference text-right tabular-nums">
    {!by ? '' : by > 0 ? `+ ${text.number(by, 2)}` : `− ${text.number(-by, 2)}`}
  </div>
  <div role="gridcell" class="checked flex items-center gap-3">
    <input
      type="checkbox"
      id="checked-{line.employmentId}"
      aria-label={w.check(line.name)}
      checked={isChecked(line)}
      disabled={!mayCheck || busy}
      onclick={(e) => {
        e.preventDefault();
        e.stopPropagation();
        oncheck();
      }}
    />
    {#if line.check}<span class="text-soft text-xs {line.check.holds ? '' : 'line-through'}"
        >{w.by(line.check.byName, text.day(line.check.at.slice(0, 10)))}</span
      >{/if}
  </div>
</div>

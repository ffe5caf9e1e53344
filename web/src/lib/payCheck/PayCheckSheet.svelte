<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import FooterSheet from '$lib/ui/FooterSheet.svelte';
  import { createQuery } from '@tanstack/svelte-query';
  import { isChecked } from './payCheckLine';
  import { workingQuery } from './queries';
  import { words } from './words';

  /** The line selected: how its pay is worked out, who typed the rate and why, and the acts that fit. */
  interface Props {
    line: Api['PayCheckLine'];
    group: string;
    period: string;
    mayCheck: boolean;
    busy: boolean;
    oncheck: () => void;
  }
  let { line, group, period, mayCheck, busy, oncheck }: Props = $props();
  const w = $derived(words());
  const working = createQuery(() => workingQuery(group, period, line.employmentId));
  const typed = $derived(working.data?.typed);
  const stopped = $derived(line.findings.some((f) => f.stops));
</script>

<FooterSheet label={line.name} tone={stopped ? 'rust' : 'sea'}>
  <div class="min-w-0 flex-1 basis-80">
    <p>
      <strong><bdi>{line.name}</bdi></strong>
      {#if working.data?.slip}
        {#each working.data.slip.lines as part (part.code)}
          <span class="mr-3 inline-block"
            ><span class="text-soft">{part.name}</span>
            {part.kind === 'deduction' ? '− ' : ''}{text.money(part.amount)}</span
          >
        {/each}
        <span class="inline-block">{w.net} <strong>{text.money(working.data.slip.net)}</strong></span>
      {:else if working.data}<span class="text-soft">{w.paysNothing}</span>{/if}
    </p>
    {#if working.data?.slip}
      <details class="text-soft text-xs">
        <summary class="flex min-h-6 cursor-pointer items-center">{working.data.slip.lines[0]?.working.join(' ')}</summary>
        <ul>
          {#each working.data.slip.lines.slice(1) as part (part.code)}<li>{part.name}: {part.working.join(' ')}</li>{/each}
        </ul>
      </details>
    {/if}
    {#if typed}
      <p class="text-soft text-xs">
        {typed.why === null
          ? w.typed(typed.byName, text.day(typed.at.slice(0, 10)))
          : w.typedWhy(typed.byName, text.day(typed.at.slice(0, 10)), typed.why)}
      </p>
    {/if}
  </div>
  <div class="flex flex-wrap gap-3">
    <a
      class="border-ink hover:bg-band inline-flex min-h-8 items-center rounded border px-3 py-1 text-sm font-semibold"
      href="/people/{line.employmentId}#section-pay">{w.openRecord}</a
    >
    {#if mayCheck}<Button look={isChecked(line) ? 'plain' : 'primary'} key="d" disabled={busy} onclick={oncheck}
        >{isChecked(line) ? w.untick : w.tick}</Button
      >{/if}
  </div>
</FooterSheet>

<script lang="ts">
  import type { Api } from '$lib/api/client';
  import Band from '$lib/drawing/Band.svelte';
  import { text } from '$lib/text/index.svelte';
  import { words } from './words';

  /** What follows from the record, worked out by the server as one types. */
  let { readings }: { readings: Api['ReadingsResponse'] } = $props();
  const t = $derived(words());
</script>

<div aria-live="polite" class="divide-rule divide-y">
  <section class="pb-4">
    <h3 class="font-sans text-sm font-semibold tracking-normal">{t.againstBand}</h3>
    {#if readings.band && readings.band.pay !== null}
      <Band band={readings.band} />
      <p class="text-xs">
        <strong>{text.money(readings.band.pay, true)} · {text.number(readings.band.compaRatio ?? 0, 3)}</strong>
        <span class={readings.band.position === 'within' ? 'text-soft' : 'text-rust font-semibold'}
          >{readings.band.position ? t.position[readings.band.position] : ''}.</span
        >
        <span class="text-soft">{readings.band.colleagues ? t.colleagues(readings.band.colleagues.length) : t.tooFewColleagues}</span>
      </p>
    {:else}
      <p class="text-soft text-xs">{t.noBand}</p>
    {/if}
  </section>
  {#if readings.rate}
    {@const rate = readings.rate}
    <section class="py-4">
      <h3 class="mb-1 font-sans text-sm font-semibold tracking-normal">{t.comesTo}</h3>
      <dl class="grid grid-cols-[1fr_auto] gap-y-1 text-xs">
        {#each [[t.annual, text.money(rate.annual)], [text.t.perPeriod[rate.every], text.money(rate.perPeriod)], [t.hourly, text.money(rate.hourly)]] as [label, amount] (label)}
          <dt class="text-soft">{label}</dt>
          <dd class="text-right font-semibold">{amount}</dd>
        {/each}
      </dl>
    </section>
  {/if}
  <section class="py-4">
    <h3 class="mb-1 font-sans text-sm font-semibold tracking-normal">{t.checks}</h3>
    {#each readings.badges as clash (clash.other)}
      <p class="border-rust bg-rust-tint text-rust border-l-4 px-3 py-1.5 text-xs">
        {t.badge[clash.kind](clash.badge, clash.other ?? t.somebodyElse)}
      </p>
    {:else}
      <p class="text-soft text-xs">{t.clean}</p>
    {/each}
  </section>
</div>

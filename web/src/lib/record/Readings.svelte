<script lang="ts">
  import type { Api } from '$lib/api/client';
  import Band from '$lib/drawing/Band.svelte';
  import { text } from '$lib/text/index.svelte';
  import FirstPay from './FirstPay.svelte';
  import PayOverTime from './PayOverTime.svelte';
  import { words } from './words';

  /** What follows from the record, worked out by the server as one types. */
  interface Props {
    readings: Api['ReadingsResponse'];
    employment: string;
    /** Enters a rate of pay; left out for those who may not. */
    onRate?: (rate: number) => void;
  }
  let { readings, employment, onRate }: Props = $props();
  const t = $derived(words());

  const fromColleagues = (band: Api['BandResponse']) =>
    band.fromColleagues === null ? '' : t.fromColleagues(band.fromColleagues, text.number(Math.abs(band.fromColleagues), 1));

  /** What was typed for one time, for all of them: the pay period last. */
  const comesTo = (rate: Api['RateResponse']) =>
    [
      [t.per.hour, rate.stated.hour],
      [t.per.day, rate.stated.day],
      [t.per.week, rate.stated.week],
      [t.per.month, rate.stated.month],
      [t.per.year, rate.stated.year],
      ...(rate.every in { week: 1, month: 1, year: 1 } ? [] : [[text.t.perPeriod[rate.every], rate.perPeriod] as const])
    ].map(([label, amount]) => [label as string, text.money(amount as number)] as const);
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
        <span class="text-soft"
          >{readings.band.colleagues ? t.colleagues(readings.band.colleagues.length) : t.tooFewColleagues}
          {fromColleagues(readings.band)}</span
        >
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
        {#each comesTo(rate) as [label, amount] (label)}
          <dt class="text-soft">{label}</dt>
          <dd class="text-right font-semibold">{amount}</dd>
        {/each}
      </dl>
      {#if readings.templateRate !== null}
        {@const says = text.money(readings.templateRate)}
        <p class="text-ochre flex flex-wrap justify-between gap-x-3 pt-1 text-xs font-semibold">
          {t.templateRate.says(says)}
          {#if onRate}<button type="button" class="link" onclick={() => onRate(readings.templateRate!)}>{t.templateRate.take}</button>{/if}
        </p>
      {/if}
      {#if readings.cost}<p class="pt-1"><a class="link text-xs" href="/people/{employment}/offer">{t.offers}</a></p>{/if}
    </section>
  {/if}
  {#if readings.payOverTime.length > 1}<PayOverTime steps={readings.payOverTime} />{/if}
  {#if readings.firstPay}<FirstPay pay={readings.firstPay} />{/if}
  {#if readings.cost}
    {@const cost = readings.cost}
    <section class="py-4 text-xs">
      <h3 class="mb-1 font-sans text-sm font-semibold tracking-normal">
        {t.cost.title} <span class="text-soft text-xs font-normal">{t.cost.per}</span>
      </h3>
      <p class="flex justify-between gap-3">
        <span>{t.cost.over(text.money(cost.annualCost, true), text.number(cost.productiveHours, 0))}</span>
        <strong>{text.money(cost.loadedHourly)}</strong>
      </p>
    </section>
  {/if}
  {#if readings.service}
    {@const service = readings.service}
    <section class="py-4 text-xs">
      <h3 class="mb-1 font-sans text-sm font-semibold tracking-normal">{t.service.title}</h3>
      <dl class="grid grid-cols-[1fr_auto] gap-y-1">
        {#if service.originalHire !== service.lastHire}
          <dt class="text-soft">{t.service.first}</dt>
          <dd class="text-right">{text.day(service.originalHire)}</dd>
        {/if}
        <dt class="text-soft">{t.service.counts}</dt>
        <dd class="text-right font-semibold">{text.day(service.adjustedService)}</dd>
        {#if service.probationEnd}
          <dt class="text-soft">{t.service.probation}</dt>
          <dd class="text-right">{text.day(service.probationEnd)}, {text.distance(service.probationEnd)}</dd>
        {/if}
      </dl>
    </section>
  {/if}
  {#if readings.leave}
    {@const leave = readings.leave}
    <section class="flex justify-between gap-3 py-4 text-xs">
      <h3 class="font-sans text-sm font-semibold tracking-normal">{t.leaveIn(leave.year)}</h3>
      <p>{t.leaveOf(text.number(leave.days), text.number(leave.wholeYear))}</p>
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

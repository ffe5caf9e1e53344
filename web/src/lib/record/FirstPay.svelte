<script lang="ts">
  import type { Api } from '$lib/api/client';
  import PayStrip from '$lib/drawing/PayStrip.svelte';
  import { text } from '$lib/text/index.svelte';
  import { words } from './words';

  /** The first pay: when, with which run, what part, and every line down to net; each opens how it was worked out. */
  let { pay }: { pay: Api['FirstPayslipResponse'] } = $props();
  const t = $derived(words().firstPay);

  const run = $derived(pay.periods.at(-1)!);
  const arrears = $derived(pay.periods.length - 1);
  const part = $derived(pay.part === pay.whole ? t.wholePeriod : t.part(text.number(pay.part), text.number(pay.whole), pay.method));
  const lines = $derived(
    pay.slip
      ? pay.slip.lines.map((l) => ({ ...l, key: l.code, takenOff: l.kind === 'deduction' }))
      : pay.basePay.map((l) => ({
          key: l.period,
          name: l.arrears ? t.arrearsOf(text.shortDay(l.period)) : t.periodFrom(text.shortDay(l.period)),
          amount: l.amount,
          working: [l.working],
          takenOff: false
        }))
  );
</script>

<section class="py-4">
  <h3 class="font-sans text-sm font-semibold tracking-normal">
    {t.title} <span class="text-soft text-xs font-normal">{t.when(text.day(run.payDate), text.day(run.cutOff))}</span>
  </h3>
  <PayStrip periods={pay.periods} start={pay.start} label={t.drawing(text.day(pay.start), text.day(run.cutOff), text.day(run.payDate))} />
  <p class="text-xs">
    {part}.
    {#if arrears > 0}<strong class="text-rust">{t.missed(arrears, text.day(pay.periods[0]!.cutOff))}</strong>{/if}
    {#if pay.asIfToday}<span class="text-soft">{t.asIfToday}</span>{/if}
  </p>
  <ul class="mt-1 text-xs">
    {#each lines as line (line.key)}
      <li>
        <details class="group">
          <summary class="flex min-h-6 cursor-pointer items-center justify-between gap-3">
            <span class="decoration-rule group-open:decoration-ink underline decoration-dotted underline-offset-2">{line.name}</span>
            <span class="font-semibold whitespace-nowrap">{line.takenOff ? '− ' : ''}{text.money(line.amount)}</span>
          </summary>
          {#each line.working as working, i (i)}
            <p class="text-soft pb-1">
              {#if line.working.length > 1}{text.shortDay(pay.periods[i]!.start)}:{/if}
              {working}
            </p>
          {/each}
        </details>
      </li>
    {/each}
    <li class="border-ink mt-1 flex justify-between gap-3 border-t pt-1 font-bold">
      <span>{pay.slip ? t.net : t.beforeDeductions}</span><span>{text.money(pay.slip ? pay.slip.net : pay.total)}</span>
    </li>
  </ul>
</section>

<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import { words } from './words';

  /** What moving a start does beside the checklist: to the first shift, the first pay and the badge. */
  interface Props {
    before: Api['StartEffectsResponse'];
    after: Api['StartEffectsResponse'];
  }
  let { before, after }: Props = $props();
  const t = $derived(words().start.effects);

  const shift = (of: Api['FirstShift']) => t.shift(text.day(of.on), `${of.from}–${of.to}`, text.hours(of.fortnightMinutes));
  const pay = (of: Api['FirstPayResponse']) =>
    [of.total === null ? '' : text.money(of.total), text.day(of.payDay), of.arrears > 0 ? t.missed(of.arrears, text.day(of.cutOff)) : '']
      .filter(Boolean)
      .join(', ');
  const badge = (of: Api['BadgeClash'][]) =>
    of.length === 0 ? t.free : of.map((clash) => t.badge[clash.kind](clash.badge, clash.other ?? t.somebody)).join(' ');

  const lines = $derived(
    [
      { label: t.labels.shift, now: before.shift && shift(before.shift), then: after.shift && shift(after.shift) },
      { label: t.labels.pay, now: before.pay && pay(before.pay), then: after.pay && pay(after.pay) },
      before.badges.length + after.badges.length > 0 && { label: t.labels.badge, now: badge(before.badges), then: badge(after.badges) }
    ].filter((line) => line && (line.now || line.then))
  );
</script>

{#if lines.length > 0}
  <dl class="mt-3 grid gap-x-4 gap-y-1 text-xs sm:grid-cols-[max-content_1fr]">
    {#each lines as line (line && line.label)}
      {#if line}
        <dt class="text-soft">{line.label}</dt>
        <dd>
          {#if line.now === line.then}{line.then}{:else}{line.now ?? '–'} → <strong>{line.then ?? '–'}</strong>{/if}
        </dd>
      {/if}
    {/each}
  </dl>
{/if}

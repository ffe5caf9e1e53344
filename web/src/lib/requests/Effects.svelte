<script lang="ts">
  import { api, data, type Api } from '$lib/api/client';
  import { fieldTitle } from '$lib/text/fieldLabels.svelte';
  import { text } from '$lib/text/index.svelte';
  import { createQuery } from '@tanstack/svelte-query';
  import { requestKeys } from './queries';
  import { words } from './words';

  /** What a request would come to: for pay, for the checklist, and for what the record then lacks. */
  let { request }: { request: Api['RequestResponse'] } = $props();
  const w = $derived(words());
  const effects = createQuery(() => ({
    queryKey: requestKeys.effects(request.id, request.version),
    queryFn: () => data(api.GET('/api/requests/{id}/effects', { params: { path: { id: request.id } } }))
  }));
  const lines = $derived.by(() => {
    if (!effects.data) return undefined;
    const { before, after, checklist } = effects.data;
    const asked = new Set(request.changes.map((c) => c.field));
    const found: { label: string; old?: string; now: string; trouble?: boolean }[] = [];
    const both = (label: string, old: string | undefined, now: string | undefined) => {
      if (old !== now && now) found.push({ label, old, now });
    };
    both(w.pay, before.rate ? text.money(before.rate.stated.year) : undefined, after.rate ? text.money(after.rate.stated.year) : undefined);
    if (after.rate)
      both(
        text.t.perPeriod[after.rate.every],
        before.rate ? text.money(before.rate.perPeriod) : undefined,
        text.money(after.rate.perPeriod)
      );
    const place = (band: Api['BandResponse'] | null) =>
      band?.position ? `${w.position[band.position]}, ${text.number(band.compaRatio ?? 0, 3)}` : undefined;
    both(w.band, place(before.band), place(after.band));
    if (after.band?.position && after.band.position !== 'within' && found.length > 0) found.at(-1)!.trouble = true;
    const roster = (of: Api['RosterResponse'] | null) => {
      if (!of) return undefined;
      const hours = text.hours(of.paidMinutes);
      return of.contractMinutes === null ? w.hours(hours) : w.againstContract(hours, text.hours(of.contractMinutes));
    };
    both(w.roster, roster(before.roster), roster(after.roster));
    const had = new Map(before.evaluation.set.map((s) => [s.field, JSON.stringify(s.value)]));
    for (const s of after.evaluation.set)
      if (!asked.has(s.field) && had.get(s.field) !== JSON.stringify(s.value))
        found.push({ label: fieldTitle(s.field), now: s.display ?? String(s.value) });
    const lacked = new Set(before.evaluation.missingNow);
    const lacks = after.evaluation.missingNow.filter((f) => !lacked.has(f));
    if (lacks.length > 0) found.push({ label: '', now: w.missing(lacks.map(fieldTitle)), trouble: true });
    for (const clash of after.badges)
      if (!before.badges.some((b) => b.badge === clash.badge)) found.push({ label: '', now: w.badge(clash.badge), trouble: true });
    if (checklist && checklist.handedOver > 0) found.push({ label: '', now: w.handedOver(checklist.handedOver) });
    for (const task of checklist?.moved ?? [])
      found.push({ label: '', now: w.moved(task.name, task.from ? text.day(task.from) : '–', task.to ? text.day(task.to) : '–') });
    return found;
  });
</script>

<section aria-label={w.effects}>
  <h3 class="font-sans text-sm font-semibold tracking-normal">{w.effects}</h3>
  {#if lines}
    <ul class="text-sm">
      {#each lines as line, i (i)}
        <li class={line.trouble ? 'text-rust font-semibold' : ''}>
          {#if line.label}<span class="text-soft font-normal">{line.label}</span>{/if}
          {#if line.old}<s class="text-soft font-normal no-underline">{line.old} →</s>{/if}
          {line.now}
        </li>
      {:else}
        <li class="text-soft">{w.noEffects}</li>
      {/each}
    </ul>
  {:else}<p class="text-soft text-sm" aria-busy="true">…</p>{/if}
</section>

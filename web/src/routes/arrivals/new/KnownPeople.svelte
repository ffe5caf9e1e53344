<script lang="ts">
  import { api, data } from '$lib/api/client';
  import { fieldTitle } from '$lib/text/fieldLabels.svelte';
  import { words } from '$lib/hires/words';
  import { text } from '$lib/text/index.svelte';
  import { aboutKnown, fullName, whyKnown } from '$lib/hires/known';
  import Button from '$lib/ui/Button.svelte';
  import { settled } from '$lib/ui/settled.svelte';
  import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
  import { draft } from './draft.svelte';
  import { hireKeys } from '$lib/hires/queries';

  /** People the firm knows who may be the one being typed, why, and what could be taken over from their last stint. */
  let { problem }: { problem?: string | undefined } = $props();
  const t = $derived(words().opening.known);
  const asked = $derived({
    givenName: draft.typed.given_name || null,
    familyName: draft.typed.family_name || null,
    birthDate: /^\d{4}-\d\d-\d\d$/.test(draft.typed.birth_date ?? '') ? draft.typed.birth_date! : null,
    email: draft.typed.email?.includes('@') ? draft.typed.email : null,
    phone: draft.typed.phone || null,
    start: draft.start
  });
  const enough = $derived(Boolean(asked.familyName && asked.givenName && (asked.birthDate || asked.email)));
  const rested = settled(() => JSON.stringify(asked));
  const found = createQuery(() => ({
    queryKey: hireKeys.known(rested.current),
    queryFn: ({ signal }) => data(api.POST('/api/hires/known', { body: JSON.parse(rested.current) as typeof asked, signal })),
    enabled: enough,
    placeholderData: keepPreviousData
  }));
  const people = $derived(enough ? (found.data ?? []).filter((p) => !draft.notThese.includes(p.personId)) : []);
  const chosen = $derived((found.data ?? []).find((p) => p.personId === draft.person?.id));

  function toggle(field: string) {
    draft.reuse = draft.reuse.includes(field) ? draft.reuse.filter((f) => f !== field) : [...draft.reuse, field];
  }
</script>

{#if draft.person}
  <section class="bg-sea-tint border-sea mb-3 border-l-4 px-4 py-2" aria-label={t.title}>
    <p class="flex flex-wrap items-baseline gap-x-4">
      <strong>{t.chosen(draft.person.name)}</strong>
      {#if chosen}
        <span class="text-xs"
          >{t.first(text.day(chosen.firstHired))}{#if chosen.adjustedService}, {t.service(text.day(chosen.adjustedService))}{/if}</span
        >
      {/if}
      <button
        type="button"
        class="link text-xs"
        onclick={() => {
          if (draft.person) draft.notThese = [...draft.notThese, draft.person.id];
          draft.person = undefined;
          draft.reuse = [];
        }}>{t.else}</button
      >
    </p>
    {#if chosen?.secondStint || problem}
      <p class="flex flex-wrap items-center gap-x-4 pt-1">
        <strong class={problem ? 'text-rust' : 'text-ochre'} role={problem ? 'alert' : undefined}>{problem ?? t.secondStint}</strong>
        {#if chosen}<a class="link text-xs" href="/people/{chosen.employmentId}">{t.record}</a>{/if}
        <label class="flex items-center gap-1.5"><input id="new-person" type="checkbox" bind:checked={draft.secondStint} />{t.meant}</label>
      </p>
    {/if}
    {#if chosen && chosen.reusable.length > 0}
      <fieldset class="flex flex-wrap gap-x-5 gap-y-1 pt-1">
        <legend class="sr-only">{t.reuse}</legend>
        {#each chosen.reusable as fact (fact.field)}
          <label class="flex items-center gap-1.5 text-xs">
            <input type="checkbox" checked={draft.reuse.includes(fact.field)} onchange={() => toggle(fact.field)} />
            {fieldTitle(fact.field)} <strong>{fact.shown}</strong>
          </label>
        {/each}
      </fieldset>
    {/if}
  </section>
{:else if people.length > 0}
  <section class="bg-ochre-tint border-ochre mb-3 border-l-4 px-4 py-2" aria-label={t.title} aria-live="polite">
    <h3 class="font-sans text-sm font-semibold">{t.title}</h3>
    {#if problem}<p class="text-rust text-xs font-semibold" role="alert">{problem}</p>{/if}
    <ul>
      {#each people as person (person.personId)}
        <li class="flex flex-wrap items-baseline gap-x-4 gap-y-1 py-1">
          <strong>{fullName(person)}</strong>
          <span class="text-xs">{aboutKnown(person, t.first(text.day(person.firstHired)))}</span>
          <span class="text-xs font-semibold">{whyKnown(person)}</span>
          {#if person.secondStint}<a class="link text-xs" href="/people/{person.employmentId}">{t.record}</a>{/if}
          <Button onclick={() => draft.isOf(person)}>{t.choose}</Button>
        </li>
      {/each}
    </ul>
    <button type="button" class="link text-xs" onclick={() => (draft.notThese = [...draft.notThese, ...people.map((p) => p.personId)])}
      >{t.else}</button
    >
  </section>
{/if}

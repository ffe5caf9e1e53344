<script lang="ts">
  import { api, data } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { keys } from '$lib/keys/keys.svelte';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import DateField from '$lib/ui/DateField.svelte';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { settled } from '$lib/ui/settled.svelte';
  import { createInfiniteQuery, keepPreviousData } from '@tanstack/svelte-query';
  import { words } from '$lib/people/words';
  import { peopleKeys } from '$lib/people/queries';

  let q = $state('');
  let on = $state<string | null>(null);
  let all = $state(false);
  let finder = $state<HTMLInputElement>();
  const t = $derived(words());
  const asked = settled(() => q);
  const people = createInfiniteQuery(() => ({
    queryKey: peopleKeys.list(asked.current, on, all),
    queryFn: ({ pageParam }) =>
      data(api.GET('/api/people', { params: { query: { q: asked.current, after: pageParam, on: on ?? undefined, all } } })),
    initialPageParam: undefined as string | undefined,
    getNextPageParam: (last: { next: string | null }) => last.next ?? undefined,
    placeholderData: keepPreviousData
  }));
  const rows = $derived(people.data?.pages.flatMap((p) => p.people) ?? []);

  $effect(() => keys.use(() => [{ key: '/', label: text.t.keys.filter, run: () => finder?.focus() }]));
</script>

<svelte:head><title>{text.t.places.people} · Fid</title></svelte:head>

{#if !people.data}
  <Waiting error={people.error} retry={() => people.refetch()} />
{:else}
  <div class="page pb-8">
    <div class="flex flex-wrap items-center justify-between gap-3 pt-5 pb-3">
      <h1 class="text-2xl">{t.title('')}</h1>
      <a class="link text-xs font-semibold" download href="/api/people/sheet.xlsx?language={text.language}{on ? `&on=${on}` : ''}"
        >{t.sheet}</a
      >
      {#if session.may('see pay')}<a class="link text-xs font-semibold" href="/people/pay-check">{t.payCheck}</a>{/if}
      {#if session.may('revise pay')}<a class="link text-xs font-semibold" href="/people/pay-revision">{t.payRevision}</a>{/if}
      <label class="ml-auto flex items-center gap-2 text-xs {on ? 'text-faint' : ''}"
        ><input type="checkbox" id="people-all" bind:checked={all} disabled={on !== null} />{t.all}</label
      >
      <div class="w-40"><DateField id="people-on" label={t.on} bind:value={on} note={on ? t.asOf : ''} /></div>
      <input
        bind:this={finder}
        bind:value={q}
        type="search"
        aria-label={t.find}
        placeholder={t.find}
        maxlength={100}
        class="border-ink w-72 max-w-full border-b bg-transparent py-1"
      />
    </div>
    <!-- svelte-ignore a11y_no_noninteractive_tabindex (it scrolls on narrow screens, so it must be reachable) -->
    <div class="overflow-x-auto" tabindex="0" role="region" aria-label={t.title('')}>
      <table class="narrow border-ink w-full border-t text-left">
        <thead class="text-soft text-xs">
          <tr
            >{#each [t.number, t.name, t.job, t.department, t.site, t.since, t.standing] as column (column)}<th
                class="px-2 py-1.5 font-normal whitespace-nowrap">{column}</th
              >{/each}</tr
          >
        </thead>
        <tbody>
          {#each rows as person (person.employmentId)}
            <tr class="border-rule hover:bg-sheet border-t">
              <td class="text-soft px-2 py-1.5">{person.number}</td>
              <td class="px-2 font-semibold whitespace-nowrap"
                ><a class="hover:underline" href="/people/{person.employmentId}"
                  ><bdi>{person.familyName}</bdi>, <bdi>{person.givenName}</bdi></a
                ></td
              >
              <td class="px-2">{person.job ?? ''}</td>
              <td class="px-2">{person.department ?? ''}</td>
              <td class="px-2">{person.site ?? ''}</td>
              <td class="px-2 whitespace-nowrap">{text.day(person.start)}</td>
              <td
                class="px-2 whitespace-nowrap {person.standing === 'coming'
                  ? 'text-sea font-semibold'
                  : person.standing === 'here'
                    ? ''
                    : 'text-soft'}">{person.standing ? t.standings[person.standing]!(person.end ? text.day(person.end) : '') : ''}</td
              >
            </tr>
          {:else}
            <tr><td colspan="7" class="text-soft px-2 py-4">{t.none}</td></tr>
          {/each}
        </tbody>
      </table>
    </div>
    {#if people.hasNextPage}<p class="pt-3"><Button onclick={() => people.fetchNextPage()}>{t.more}</Button></p>{/if}
  </div>
{/if}

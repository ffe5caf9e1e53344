<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { AccountForm } from '$lib/admin/account.svelte';
  import AccountSheet from '$lib/admin/AccountSheet.svelte';
  import Parts from '$lib/admin/Parts.svelte';
  import { accountQuery, adminKeys, personsAccountQuery } from '$lib/admin/queries';
  import { showMoment, words } from '$lib/admin/words';
  import { api, data, type Api } from '$lib/api/client';
  import { keys } from '$lib/keys/keys.svelte';
  import { nameOf, optionsQuery } from '$lib/lists/queries';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { settled } from '$lib/ui/settled.svelte';
  import { createInfiniteQuery, createQuery, keepPreviousData, useQueryClient } from '@tanstack/svelte-query';

  /** Who can sign in, what may they, and does any team have nobody? */
  const w = $derived(words().accounts);
  const client = useQueryClient();
  let q = $state('');
  let only = $state('awake');
  let finder = $state<HTMLInputElement>();
  let form = $state<AccountForm>();
  let detail = $state<Api['AccountDetail']>();
  const asked = settled(() => q);
  const accounts = createInfiniteQuery(() => ({
    queryKey: adminKeys.list(asked.current, only),
    initialPageParam: undefined as string | undefined,
    queryFn: ({ pageParam }) =>
      data(api.GET('/api/accounts', { params: { query: { q: asked.current || undefined, only: only || undefined, after: pageParam } } })),
    getNextPageParam: (last: Api['AccountsPage']) => last.next ?? undefined,
    placeholderData: keepPreviousData
  }));
  const options = optionsQuery();
  const first = $derived(accounts.data?.pages[0]);
  const rows = $derived(accounts.data?.pages.flatMap((p) => p.accounts) ?? []);
  const team = (code: string) => nameOf(options.data?.options ?? [], 'teams', code);
  const stateOf = (account: Api['AccountResponse']) =>
    account.state === 'invited'
      ? account.linkEndsAt
        ? w.until(showMoment(account.linkEndsAt))
        : w.expired
      : account.disabledWhy === 'left'
        ? `${w.states.disabled}, ${w.left}`
        : w.states[account.state];

  function invite() {
    detail = undefined;
    form = AccountForm.inviting(undefined, text.language);
  }
  // What is given or ended in the sheet shows in it.
  const fresh = createQuery(() => ({ ...accountQuery(form?.id ?? ''), enabled: form?.id !== undefined && detail !== undefined }));
  async function look(id: string) {
    const there = await client.fetchQuery(accountQuery(id));
    detail = there;
    form = AccountForm.of(there);
  }
  async function ofPerson(employment: string) {
    const theirs = await client.fetchQuery(personsAccountQuery(employment));
    if (theirs.account && theirs.account.state !== 'asleep') return look(theirs.account.id);
    detail = undefined;
    form = AccountForm.inviting({ name: theirs.name, email: theirs.email, employment, roles: theirs.account?.roles ?? [] }, text.language);
  }
  function close() {
    form = undefined;
    if (page.url.search) void goto('/admin', { replaceState: true, keepFocus: true });
  }
  // A record leads here, with whose it is; and a message that came back, with the account it went to.
  let led = '';
  $effect(() => {
    const [person, account] = [page.url.searchParams.get('person') ?? '', page.url.searchParams.get('account') ?? ''];
    if (person && person !== led) void ofPerson(person);
    else if (account && account !== led) void look(account);
    led = person || account;
  });
  $effect(() =>
    keys.use(() => [
      { key: 'i', label: w.invite, run: invite },
      { key: '/', label: text.t.keys.filter, run: () => finder?.focus() }
    ])
  );
</script>

<svelte:head><title>{text.t.places.admin} · Fid</title></svelte:head>

{#if !first}
  <Waiting error={accounts.error} retry={() => accounts.refetch()} />
{:else}
  <div class="page pb-10">
    <div class="flex flex-wrap items-end justify-between gap-x-8 gap-y-2 pt-5 pb-1">
      <h1 class="text-2xl leading-tight">
        {w.news(first.counts.active)}
        {#if first.counts.invited > 0}<span class="text-ochre">{w.invited(first.counts.invited)}</span>{/if}
      </h1>
      <Button look="primary" key="i" onclick={invite}>{w.invite}</Button>
    </div>
    {#if first.emptyTeams.length > 0}<p class="text-rust font-semibold">{w.emptyTeams(text.list(first.emptyTeams.map(team)))}</p>{/if}
    <div class="flex flex-wrap items-end justify-between gap-x-8 gap-y-2 py-2">
      <Parts />
      <div class="flex flex-wrap items-center gap-4">
        <select bind:value={only} aria-label={w.columns[5]} class="border-rule bg-sheet min-h-8 rounded border px-2">
          {#each Object.entries(w.only) as [value, label] (value)}<option {value}
              >{label}{value in first.counts ? ` (${first.counts[value as keyof Api['AccountCounts']]})` : ''}</option
            >{/each}
        </select>
        <input
          bind:this={finder}
          bind:value={q}
          type="search"
          aria-label={w.find}
          placeholder={w.find}
          maxlength={100}
          class="border-ink w-64 max-w-full border-b bg-transparent py-1"
        />
      </div>
    </div>
    {#if only === 'asleep'}<p class="text-soft pb-2 text-xs">{w.asleepNote}</p>{/if}
    <!-- svelte-ignore a11y_no_noninteractive_tabindex (it scrolls on narrow screens, so it must be reachable) -->
    <div class="overflow-x-auto" tabindex="0" role="region" aria-label={words().places.people}>
      <table class="narrow border-ink w-full border-t text-left max-sm:block sm:min-w-[46rem]">
        <thead class="text-soft text-xs max-sm:hidden">
          <tr
            >{#each w.columns as column (column)}<th scope="col" class="px-2 py-1.5 font-normal whitespace-nowrap">{column}</th>{/each}</tr
          >
        </thead>
        <!-- On a telephone each account is a line or two of words. -->
        <tbody class="max-sm:block">
          {#each rows as account (account.id)}
            <tr class="border-rule hover:bg-sheet border-t max-sm:flex max-sm:flex-wrap max-sm:gap-x-3 max-sm:py-2">
              <td class="px-2 py-1.5 whitespace-nowrap max-sm:basis-full max-sm:p-0 max-sm:whitespace-normal"
                ><button
                  type="button"
                  class="font-semibold hover:underline"
                  onclick={() =>
                    account.state === 'asleep' && account.employment ? void ofPerson(account.employment) : void look(account.id)}
                  ><bdi>{account.name}</bdi></button
                >{#if account.person && account.person !== account.name}<span class="text-soft text-xs"> · {account.person}</span>{/if}</td
              >
              <td class="text-soft px-2 break-all max-sm:basis-full max-sm:p-0">{account.email ?? ''}</td>
              <td class="px-2 max-sm:p-0">{account.roles.map((r) => w.roles[r] ?? r).join(', ')}</td>
              <td class="px-2 max-sm:p-0 max-sm:[&:empty]:hidden">{account.teams.map(team).join(', ')}</td>
              <td class="text-soft px-2 whitespace-nowrap max-sm:p-0"
                ><span class="sm:hidden">{w.columns[4]}: </span>{account.lastSignInAt ? showMoment(account.lastSignInAt) : w.never}</td
              >
              <td
                class="px-2 max-sm:p-0 {account.state === 'invited'
                  ? 'text-ochre font-semibold'
                  : account.state === 'disabled'
                    ? 'text-rust'
                    : account.state === 'asleep'
                      ? 'text-soft'
                      : ''}">{stateOf(account)}</td
              >
            </tr>
          {:else}
            <tr><td colspan="6" class="text-soft px-2 py-4">{w.none}</td></tr>
          {/each}
        </tbody>
      </table>
    </div>
    {#if accounts.hasNextPage}<div class="pt-4"><Button onclick={() => void accounts.fetchNextPage()}>{w.more}</Button></div>{/if}
  </div>
  {#if form}<AccountSheet bind:form detail={fresh.data?.account.id === detail?.account.id ? fresh.data : detail} onclose={close} />{/if}
{/if}

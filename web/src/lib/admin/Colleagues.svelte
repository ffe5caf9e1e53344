<script lang="ts">
  import { api, data } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import { createQuery } from '@tanstack/svelte-query';
  import { AccountForm } from './account.svelte';
  import AccountSheet from './AccountSheet.svelte';
  import { adminKeys } from './queries';
  import { words } from './words';

  /** Who else works with Fid? The end of setting a firm up. */
  const w = $derived(words());
  let form = $state<AccountForm>();
  const accounts = createQuery(() => ({
    queryKey: adminKeys.counts,
    queryFn: () => data(api.GET('/api/accounts')),
    select: (page: { counts: { active: number; invited: number } }) => page.counts.active + page.counts.invited
  }));
</script>

<section aria-labelledby="colleagues" class="border-ink mt-8 border-t pt-3">
  <h2 id="colleagues" class="text-lg">{w.colleagues.title}</h2>
  <p class="text-soft pb-2">
    {w.colleagues.note}
    {#if accounts.data !== undefined}<strong class="text-ink"
        >{accounts.data > 1 ? w.colleagues.there(accounts.data) : w.colleagues.alone}</strong
      >{/if}
  </p>
  <Button onclick={() => (form = AccountForm.inviting(undefined, text.language))}>{w.accounts.invite}</Button>
</section>
{#if form}<AccountSheet bind:form onclose={() => (form = undefined)} />{/if}

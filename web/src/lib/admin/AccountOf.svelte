<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { personsAccountQuery } from './queries';
  import { words } from './words';

  /** Can this person sign in? For administrators, on their record. */
  let { employment }: { employment: string } = $props();
  const w = $derived(words().ofPerson);
  const theirs = createQuery(() => personsAccountQuery(employment));
  const account = $derived(theirs.data?.account);
</script>

{#if theirs.data}
  <p class="text-soft text-xs">
    {account ? `${w.states[account.state]}.` : w.none}
    <a class="link" href="/admin?person={employment}">{!account || account.state === 'asleep' ? w.invite : w.look}</a>
  </p>
{/if}

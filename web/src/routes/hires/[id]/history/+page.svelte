<script lang="ts">
  import { page } from '$app/state';
  import { hireQuery } from '$lib/hires/queries';
  import HistoryScreen from '$lib/history/HistoryScreen.svelte';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { createQuery } from '@tanstack/svelte-query';

  const hire = createQuery(() => hireQuery(page.params.id!));
</script>

{#if hire.data}
  <HistoryScreen id={hire.data.employmentId} />
{:else}
  <Waiting error={hire.error} retry={() => hire.refetch()} />
{/if}

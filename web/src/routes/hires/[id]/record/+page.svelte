<script lang="ts">
  import { page } from '$app/state';
  import { hireQuery } from '$lib/hires/queries';
  import RecordScreen from '$lib/record/RecordScreen.svelte';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { createQuery } from '@tanstack/svelte-query';

  const hire = createQuery(() => hireQuery(page.params.id!));
</script>

{#if hire.data}
  <RecordScreen id={hire.data.employmentId} />
{:else}
  <Waiting error={hire.error} retry={() => hire.refetch()} />
{/if}

<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { api, ApiProblem, data } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { keys } from '$lib/keys/keys.svelte';
  import TemplateScreen from '$lib/templates/TemplateScreen.svelte';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { words } from '$lib/templates/words';
  import { createQuery } from '@tanstack/svelte-query';
  import { templateKeys } from '$lib/templates/queries';

  const code = $derived(page.params.code!);
  const template = createQuery(() => ({
    queryKey: templateKeys.one(code),
    queryFn: () => data(api.GET('/api/templates/{code}', { params: { path: { code } } })),
    retry: (count: number, e: Error) => !(e instanceof ApiProblem && e.status === 404) && count < 2
  }));
  $effect(() => keys.use(() => [{ key: 'Escape', run: () => void goto('/templates') }]));
</script>

<svelte:head><title>{template.data?.draft?.spec.name ?? template.data?.live?.name ?? words().title} · Fid</title></svelte:head>

{#if !template.data}
  <Waiting error={template.error} retry={() => template.refetch()} />
{:else}
  {#key code}
    <TemplateScreen template={template.data} mayEdit={session.may('edit template')} />
  {/key}
{/if}

<script lang="ts">
  import { api, data } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import { done, failed } from '$lib/ui/toast';
  import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { adminKeys } from './queries';
  import { showMoment, words } from './words';

  /** May a calendar program see who arrives, and does a link that got into other hands still open something? */
  const client = useQueryClient();
  const w = $derived(words().account.calendar);
  const link = createQuery(() => ({ queryKey: adminKeys.calendarLink, queryFn: () => data(api.GET('/api/arrivals/calendar-link')) }));
  let made = $state<string>();

  const act = createMutation(() => ({
    mutationFn: async (makes: boolean) => {
      if (makes) made = location.origin + (await data(api.POST('/api/arrivals/calendar-link'))).path;
      else {
        await data(api.DELETE('/api/arrivals/calendar-link'));
        made = undefined;
        done(w.ended);
      }
      await client.invalidateQueries({ queryKey: adminKeys.calendarLink });
    },
    onError: (e) => failed(text.failure(e))
  }));
  async function copy() {
    if (!made) return;
    await navigator.clipboard.writeText(made);
    done(w.copied);
  }
</script>

<section aria-labelledby="calendar-title" class="pb-6">
  <h2 id="calendar-title" class="border-ink border-t-2 pt-3 text-lg">{w.title}</h2>
  <p class="text-soft pb-2">{w.intro}</p>
  {#if made}
    <div class="border-sea bg-sea-tint mb-3 border-l-4 px-3 py-2">
      <p class="text-xs">{w.once}</p>
      <p class="flex flex-wrap items-center gap-3">
        <code class="min-w-0 text-xs break-all">{made}</code><Button onclick={copy}>{w.copy}</Button>
      </p>
    </div>
  {/if}
  <div class="flex flex-wrap items-center justify-between gap-3">
    <p>{link.data?.madeAt ? w.made(showMoment(link.data.madeAt)) : link.data ? w.none : ''}</p>
    <div class="flex flex-wrap gap-3">
      {#if link.data?.madeAt}
        <Button look="danger" disabled={act.isPending} onclick={() => act.mutate(false)}>{w.end}</Button>
      {/if}
      <Button disabled={act.isPending || !link.data} onclick={() => act.mutate(true)}>{link.data?.madeAt ? w.renew : w.make}</Button>
    </div>
  </div>
</section>

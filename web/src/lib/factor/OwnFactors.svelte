<script lang="ts">
  import { api, data } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import { done, failed } from '$lib/ui/toast';
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import AddFactor from './AddFactor.svelte';
  import { factorKeys, factorQuery } from './queries';
  import { words } from './words';

  /** What do I prove with that it is me, besides my password? */
  const client = useQueryClient();
  const w = $derived(words());
  const factors = createQuery(() => factorQuery());
  let fresh = $state<string[]>([]);
  const day = (instant: string) => text.day(instant.slice(0, 10));
  const again = () => client.invalidateQueries({ queryKey: factorKeys.own });

  async function attempt(act: () => Promise<void>) {
    try {
      await act();
      await again();
    } catch (e) {
      failed(text.failure(e));
    }
  }
  const remove = (passkey?: string) =>
    attempt(async () => {
      await data(
        passkey
          ? api.DELETE('/api/session/second-factor/passkeys/{id}', { params: { path: { id: passkey } } })
          : api.DELETE('/api/session/second-factor/authenticator')
      );
      done(w.removed);
    });
  const renew = () =>
    attempt(async () => {
      fresh = (await data(api.POST('/api/session/second-factor/recovery-codes'))).recoveryCodes;
    });
</script>

<h2 class="border-ink border-t-2 pt-3 text-lg">{w.title}</h2>
<p class="text-soft pb-2">{w.intro}</p>
{#if factors.data}
  {@const own = factors.data}
  {#if own.since}
    <ul class="divide-rule border-rule divide-y border-y">
      {#if own.authenticator}
        <li class="flex flex-wrap items-baseline gap-x-4 gap-y-1 py-2">
          <span class="flex-1"><strong>{w.authenticator}</strong> <span class="text-soft text-xs">{w.since(day(own.since))}</span></span>
          <Button aria-label={w.removeNamed(w.authenticator)} onclick={() => void remove()}>{w.remove}</Button>
        </li>
      {/if}
      {#each own.passkeys as passkey (passkey.id)}
        <li class="flex flex-wrap items-baseline gap-x-4 gap-y-1 py-2">
          <span class="flex-1"
            ><strong><bdi>{passkey.name}</bdi></strong>
            <span class="text-soft text-xs"
              >{w.madeOn(day(passkey.madeAt))}{passkey.usedAt ? `, ${w.usedOn(day(passkey.usedAt))}` : ''}</span
            ></span
          >
          <Button aria-label={w.removeNamed(passkey.name)} onclick={() => void remove(passkey.id)}>{w.remove}</Button>
        </li>
      {/each}
    </ul>
    <p class="flex flex-wrap items-baseline gap-x-4 py-2 {own.recoveryCodes < 3 ? 'text-ochre' : ''}">
      {w.codesLeft(own.recoveryCodes)} <button type="button" class="link" onclick={() => void renew()}>{w.renew}</button>
    </p>
    {#if fresh.length > 0}
      <section aria-label={w.codesTitle} class="border-ochre bg-ochre-tint mb-3 border-l-4 px-4 py-3">
        <p class="max-w-prose text-sm">{w.codesNote}</p>
        <ul class="grid max-w-md grid-cols-2 gap-x-8 py-2 font-mono">
          {#each fresh as one (one)}<li>{one}</li>{/each}
        </ul>
        <Button look="primary" onclick={() => (fresh = [])}>{w.keptThem}</Button>
      </section>
    {/if}
  {:else}<p class="pb-2">{w.none}</p>{/if}
  <div class="pb-6"><AddFactor replaces={own.authenticator} onadded={() => void again()} /></div>
{/if}

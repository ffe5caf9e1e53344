<script lang="ts">
  import { api, ApiProblem, data, type Api } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { useQueryClient } from '@tanstack/svelte-query';
  import { addPasskey, canUsePasskeys } from './passkeys';
  import { factorKeys } from './queries';
  import { words } from './words';

  /** Adds a factor: an authenticator by a square code, or a passkey; the recovery codes of the first one are shown once. */
  let { onadded, replaces = false }: { onadded: () => void; replaces?: boolean } = $props();
  const client = useQueryClient();
  const w = $derived(words());
  let begun = $state<Api['AuthenticatorKey']>();
  let square = $state('');
  let naming = $state(false);
  let name = $state('');
  let code = $state('');
  let codes = $state<string[]>([]);
  let busy = $state(false);
  let problem = $state<string>();

  async function attempt(act: () => Promise<void>) {
    busy = true;
    problem = undefined;
    try {
      await act();
    } catch (e) {
      problem = e instanceof ApiProblem ? (text.problem(e.errors[0]) ?? text.failure(e)) : w.passkeyFailed;
    } finally {
      busy = false;
    }
  }
  const begin = () =>
    attempt(async () => {
      begun = await data(api.POST('/api/session/second-factor/authenticator/begin'));
      square = (await import('uqr')).renderSVG(begun.address, { border: 2 });
    });
  function added(factor: Api['AddedFactor']) {
    begun = undefined;
    naming = false;
    code = '';
    codes = factor.recoveryCodes;
    void client.invalidateQueries({ queryKey: factorKeys.own });
    if (codes.length === 0) onadded();
  }
  const addCode = () => attempt(async () => added(await data(api.POST('/api/session/second-factor/authenticator', { body: { code } }))));
  const addKey = () => attempt(async () => added(await addPasskey(name.trim() || w.passkeyUsual)));
</script>

{#if codes.length > 0}
  <section aria-label={w.codesTitle} class="border-ochre bg-ochre-tint border-l-4 px-4 py-3">
    <h3 class="text-base">{w.codesTitle}</h3>
    <p class="max-w-prose text-sm">{w.codesNote}</p>
    <ul class="grid max-w-md grid-cols-2 gap-x-8 py-2 font-mono">
      {#each codes as one (one)}<li>{one}</li>{/each}
    </ul>
    <Button
      look="primary"
      onclick={() => {
        codes = [];
        onadded();
      }}>{w.keptThem}</Button
    >
  </section>
{:else if begun}
  <form
    class="space-y-3"
    onsubmit={(e) => {
      e.preventDefault();
      void addCode();
    }}
  >
    <p>{w.scan}</p>
    <!-- Black on white, whatever the reader's colours: cameras read it so. -->
    <!-- eslint-disable-next-line svelte/no-at-html-tags -- drawn here from a key of the server's own making -->
    <div role="img" aria-label={w.qr} class="w-44 bg-white p-1">{@html square}</div>
    <p class="text-sm"><span class="text-soft">{w.key}:</span> <code class="break-all">{begun.key.match(/.{1,4}/g)?.join(' ')}</code></p>
    <div class="max-w-xs">
      <TextField
        id="factor-first-code"
        label={w.code}
        note={w.codeNote}
        inputmode="numeric"
        autocomplete="one-time-code"
        maxlength={10}
        bind:value={code}
        error={problem}
      />
    </div>
    <div class="flex gap-3">
      <Button type="submit" look="primary" disabled={busy || !code.trim()}>{w.add}</Button>
      <Button onclick={() => (begun = undefined)}>{w.cancel}</Button>
    </div>
  </form>
{:else if naming}
  <form
    class="space-y-3"
    onsubmit={(e) => {
      e.preventDefault();
      void addKey();
    }}
  >
    <div class="max-w-xs">
      <TextField id="passkey-name" label={w.passkeyName} placeholder={w.passkeyUsual} maxlength={60} bind:value={name} error={problem} />
    </div>
    <div class="flex gap-3">
      <Button type="submit" look="primary" disabled={busy}>{w.add}</Button>
      <Button onclick={() => (naming = false)}>{w.cancel}</Button>
    </div>
  </form>
{:else}
  {#if problem}<p role="alert" class="text-rust pb-2">{problem}</p>{/if}
  <div class="flex flex-wrap gap-3">
    <Button disabled={busy} onclick={begin}>{replaces ? w.replaceAuthenticator : w.addAuthenticator}</Button>
    {#if canUsePasskeys()}<Button disabled={busy} onclick={() => (naming = true)}>{w.addPasskey}</Button>{/if}
  </div>
{/if}

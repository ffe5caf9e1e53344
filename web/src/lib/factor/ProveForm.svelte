<script lang="ts">
  import { api, ApiProblem, data, type Api } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { createQuery } from '@tanstack/svelte-query';
  import { canUsePasskeys, provePasskey } from './passkeys';
  import { factorQuery } from './queries';
  import { words } from './words';

  /** Proves by a code or a passkey who one is. */
  let { onproved }: { onproved: (session: Api['SessionResponse']) => void } = $props();
  const w = $derived(words());
  const factors = createQuery(() => factorQuery());
  const hasPasskey = $derived((factors.data?.passkeys.length ?? 0) > 0 && canUsePasskeys());
  let code = $state('');
  let busy = $state(false);
  let problem = $state<string>();

  async function prove(by: () => Promise<Api['SessionResponse']>) {
    busy = true;
    problem = undefined;
    try {
      onproved(await by());
    } catch (e) {
      problem = e instanceof ApiProblem ? (text.problem(e.errors[0]) ?? text.failure(e)) : w.passkeyFailed;
      code = '';
    } finally {
      busy = false;
    }
  }
</script>

<form
  class="space-y-3"
  onsubmit={(e) => {
    e.preventDefault();
    void prove(() => data(api.POST('/api/session/second-factor/prove', { body: { code } })));
  }}
>
  <TextField id="factor-code" label={w.proveCode} autocomplete="one-time-code" inputmode="text" maxlength={40} required bind:value={code} />
  {#if problem}<p role="alert" class="border-rust bg-rust-tint text-rust border-l-4 px-3 py-2">{problem}</p>{/if}
  <div class="flex flex-wrap gap-3">
    <Button type="submit" look="primary" disabled={busy || !code.trim()}>{w.prove}</Button>
    {#if hasPasskey}<Button disabled={busy} onclick={() => void prove(provePasskey)}>{w.usePasskey}</Button>{/if}
  </div>
</form>

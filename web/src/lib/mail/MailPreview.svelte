<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { words } from './words';

  /** Does the message say what it should, in the case of somebody real? */
  interface Props {
    shown: Api['MailShown'] | undefined;
    trouble: string | undefined;
  }
  let { shown, trouble }: Props = $props();
  const w = $derived(words().texts);
  let plain = $state(false);
</script>

{#if trouble}
  <p class="text-rust py-2 font-semibold">{trouble}</p>
{/if}
{#if shown}
  {#if shown.missing.length > 0}<p class="text-ochre pb-1 font-semibold">{w.missing(shown.missing.join(', '))}</p>{/if}
  <p class="border-rule border-b py-1 font-semibold" data-testid="subject"><bdi>{shown.subject}</bdi></p>
  <div class="flex gap-4 py-1" role="group" aria-label={w.shownAs}>
    {#each [false, true] as isPlain (isPlain)}
      <button
        type="button"
        aria-pressed={plain === isPlain}
        class="border-b-4 py-0.5 {plain === isPlain ? 'border-sea font-semibold' : 'text-soft border-transparent'}"
        onclick={() => (plain = isPlain)}>{isPlain ? w.plain : w.html}</button
      >
    {/each}
  </div>
  {#if plain}
    <pre class="bg-sheet min-h-72 overflow-x-auto p-3 font-sans whitespace-pre-wrap">{shown.text}</pre>
  {:else}
    <!-- What somebody wrote is shown, and nothing of it runs. -->
    <iframe title={w.html} sandbox="" srcdoc={shown.html} class="h-[30rem] w-full border-0" style="background: #fff"></iframe>
  {/if}
{/if}

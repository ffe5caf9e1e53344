<script lang="ts">
  import { api, ApiProblem, data, type Api } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { done } from '$lib/ui/toast';
  import { createMutation, useQueryClient } from '@tanstack/svelte-query';
  import { nameOf } from './configuration';
  import Differences from './Differences.svelte';
  import type { Drafting } from './drafting.svelte';
  import { sentenceOf } from './findings';
  import { roleName } from './roleName';
  import { words } from './words';
  import { again } from '$lib/api/again';
  import { fieldKeys } from './queries';
  import { recordKeys } from '$lib/record/queries';
  import { hireKeys } from '$lib/hires/queries';

  /** What would change and whom it touches, before it is made live. */
  let { open = $bindable(), drafting }: { open: boolean; drafting: Drafting } = $props();
  const client = useQueryClient();
  const w = $derived(words().publishing);
  const review = $derived<Api['ReviewResponse'] | undefined>(drafting.review);
  const findings = $derived(review?.findings ?? []);
  const blocked = $derived(findings.some((f) => f.blocks));
  const widened = $derived(review?.widened ?? []);
  const asks = $derived(widened.length > 0 && drafting.askedBy === '');
  const waits = $derived(widened.length > 0 && drafting.askedById === session.user?.id);
  let why = $state('');
  let despite = $state(false);
  let error = $state('');
  const label = (key: string) => {
    const field = drafting.find(key);
    return field ? `“${nameOf(field, text.language)}”` : key;
  };

  const publishMutation = createMutation(() => ({
    mutationFn: async () => {
      const published = await data(
        api.POST('/api/fields/draft/publish', {
          body: { why: why.trim() || null, despite },
          headers: { 'If-Match': drafting.version ?? '' }
        })
      );
      open = false;
      done(published.version === null ? w.asked : w.done(published.version));
      await again(client, fieldKeys.all, recordKeys.all, hireKeys.arrivals);
    },
    onError: (e) => {
      if (e instanceof ApiProblem && e.status === 412) {
        drafting.other = e.current as Api['DraftResponse'];
        open = false;
      } else error = text.failure(e);
    }
  }));
  function publish() {
    error = '';
    publishMutation.mutate();
  }
</script>

<Dialog bind:open title={w.title} focus="#publish-why">
  <div class="px-5 pt-2 pb-5">
    {#if review && review.differences.length === 0}<p>{w.nothing}</p>{/if}
    {#each findings as f, i (i)}
      <p class="py-0.5 {f.blocks ? 'text-rust font-semibold' : 'text-ochre'}">{sentenceOf(f, drafting)}</p>
    {/each}
    {#if review && review.differences.length > 0}
      <h3 class="pt-2 text-base">{w.touches}</h3>
      {#if blocked}<p class="text-rust">{w.blocked}</p>{:else if review.touched.length === 0}<p class="text-soft">{w.nobody}</p>{/if}
      <ul>
        {#each review.touched as t (t.field)}
          {#if t.lacking > 0}<li>{w.lacking(t.lacking, label(t.field))}</li>{/if}
          {#if t.hidden > 0}<li>{w.hidden(t.hidden, label(t.field))}</li>{/if}
        {/each}
      </ul>
      {#if widened.length > 0}
        <div class="border-ochre bg-ochre-tint mt-3 border-l-4 px-3 py-2">
          <p class="font-semibold">{drafting.askedBy === '' ? w.widens : waits ? w.waits : w.asksYou(drafting.askedBy)}</p>
          <ul>
            {#each widened as more (more.field + more.through)}
              <li>
                {w.widened(
                  label(more.field),
                  more.through === more.field ? undefined : label(more.through),
                  more.roles.map((role) => roleName(role))
                )}
              </li>
            {/each}
          </ul>
        </div>
      {/if}
      <h3 class="pt-3 text-base">{w.differences}</h3>
      <Differences differences={review.differences} {label} />
      <div class="pt-3"><TextField id="publish-why" label={w.why} bind:value={why} maxlength={500} /></div>
      {#if findings.length > 0 && !blocked}
        <label class="flex items-center gap-2 py-1"><input type="checkbox" bind:checked={despite} />{w.despite}</label>
      {/if}
    {/if}
    {#if error}<p role="alert" class="text-rust font-semibold">{error}</p>{/if}
    <div class="flex justify-end gap-3 pt-3">
      <Button onclick={() => (open = false)}>{w.cancel}</Button>
      <Button
        look="primary"
        disabled={publishMutation.isPending ||
          blocked ||
          waits ||
          !review ||
          review.differences.length === 0 ||
          (findings.length > 0 && !despite)}
        onclick={publish}>{asks ? w.ask : widened.length > 0 ? w.agree : w.act}</Button
      >
    </div>
  </div>
</Dialog>

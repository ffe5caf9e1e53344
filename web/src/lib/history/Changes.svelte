<script lang="ts">
  import { api, data, type Api } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { fieldTitle } from '$lib/text/fieldLabels.svelte';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { done } from '$lib/ui/toast';
  import { useQueryClient } from '@tanstack/svelte-query';
  import { shown } from './show';
  import { changed } from './value';
  import { words } from './words';
  import { recordKeys } from '$lib/record/queries';

  /** The saves of a record, the latest first; each can be explained, and taken back. */
  let { id, changes, values }: { id: string; changes: Api['HistoryChange'][]; values: Api['HistoryValue'][] } = $props();
  const client = useQueryClient();
  const w = $derived(words());
  let acting = $state<{ change: string; act: 'explain' | 'takeBack' }>();
  let why = $state('');
  let error = $state('');

  async function go() {
    const { change, act } = acting!;
    error = '';
    try {
      const request = { params: { path: { id, change } }, body: { why: why.trim() || null } };
      if (act === 'explain') await data(api.POST('/api/records/{id}/changes/{change}/explanations', request));
      else await data(api.POST('/api/records/{id}/changes/{change}/take-back', request));
      done(act === 'explain' ? w.explained : w.takenBack);
      acting = undefined;
      why = '';
      await client.invalidateQueries({ queryKey: recordKeys.one(id) });
    } catch (e) {
      error = text.failure(e);
    }
  }
</script>

<ul>
  {#each changes as change (change.id)}
    <li class="border-rule border-b py-2">
      <p class="flex flex-wrap items-baseline gap-x-3">
        <strong class={change.stands ? '' : 'text-soft line-through'}>{change.fields.map(fieldTitle).join(', ')}</strong>
        <span class="text-soft text-xs"
          >{change.by}, {w.actions[change.action] ?? change.action}
          {text.t.source.from(change.origin)}, {text.day(change.at.slice(0, 10))}{change.stands ? '' : ` · ${w.undone}`}</span
        >
        {#if session.may('correct record')}
          <button type="button" class="link text-xs" onclick={() => (acting = { change: change.id, act: 'explain' })}>{w.explain}</button>
          {#if change.stands && change.canBeTakenBack}
            <button type="button" class="link text-xs" onclick={() => (acting = { change: change.id, act: 'takeBack' })}
              >{w.takeBack}</button
            >
          {/if}
        {/if}
      </p>
      <ul class="text-sm">
        {#each changed(change, values) as one (one.field)}
          {#if one.before || one.after}
            <li>
              <span class="text-soft text-xs">{fieldTitle(one.field)}</span>
              <bdi>{one.before ? shown(one.before, w.nothing) : w.nothing}</bdi> →
              <bdi class="font-semibold">{one.after ? shown(one.after, w.nothing) : w.nothing}</bdi>
            </li>
          {/if}
        {/each}
      </ul>
      {#if change.why}<p class="text-sm">{change.why}</p>{/if}
      {#if change.agreedBy.length > 0}<p class="text-sea text-xs font-semibold">{w.agreedBy(change.agreedBy)}</p>{/if}
      {#each change.explanations as explanation (explanation.at)}
        <p class="text-sm">
          {explanation.why} <span class="text-soft text-xs">{w.explainedBy(explanation.by, text.day(explanation.at.slice(0, 10)))}</span>
        </p>
      {/each}
      {#if acting?.change === change.id}
        <div class="flex max-w-lg flex-wrap items-end gap-3 pt-1">
          <div class="flex-1"><TextField id="change-why" label={w.why} bind:value={why} maxlength={500} error={error || undefined} /></div>
          <Button onclick={() => (acting = undefined)}>{w.cancel}</Button>
          <Button look="primary" onclick={go}>{acting.act === 'explain' ? w.save : w.takeBack}</Button>
        </div>
      {/if}
    </li>
  {:else}
    <li class="text-soft py-2">{w.none}</li>
  {/each}
</ul>

<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import Markdown from '$lib/ui/Markdown.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import type { Snippet } from 'svelte';
  import { stateOf, type Settling } from './settling.svelte';
  import { words } from './words';

  /** A task of a pay run: what, who, by when, and the box that says it is done. */
  interface Props {
    checklist: string;
    task: Api['RunTaskResponse'];
    settling: Settling;
    /** Whether the reader may settle tasks of others, and say that one does not apply. */
    mayAll: boolean;
    /** Which run it is of, where that is not said around it. */
    about?: Snippet;
  }
  let { checklist, task, settling, mayAll, about }: Props = $props();
  const w = $derived(words());
  const standing = $derived(stateOf(task));
  const due = $derived(task.due ?? task.latestFinish);
  const tone = $derived(task.state === 'late' ? 'text-rust' : task.state === 'atRisk' ? 'text-ochre' : 'text-soft');
  let skipping = $state(false);
  let why = $state('');
  let missing = $state(false);

  async function skip(event: SubmitEvent) {
    event.preventDefault();
    missing = why.trim() === '';
    if (missing || !(await settling.settle(checklist, task, 'skipped', why.trim()))) return;
    skipping = false;
    why = '';
  }
</script>

<div class="border-rule flex items-start gap-2.5 border-b py-1.5">
  <input
    type="checkbox"
    class="mt-0.5 size-4.5 shrink-0"
    aria-label={w.done(task.name)}
    checked={standing === 'done'}
    disabled={settling.busy || standing === 'skipped' || !(mayAll || task.isMine)}
    onchange={(e) => {
      const to = e.currentTarget.checked ? 'done' : 'open';
      // Shown as it is until the server has said so.
      e.currentTarget.checked = standing === 'done';
      void settling.settle(checklist, task, to);
    }}
  />
  <div class="min-w-0 flex-1">
    <p class="leading-tight {standing === 'open' ? 'font-semibold' : 'text-soft'}">{task.name}</p>
    <p class="text-soft text-xs">
      {#if about}{@render about()}{#if standing !== 'open'}
          ·
        {/if}{/if}
      {#if task.done}{w.doneBy(task.doneBy ?? '', text.day(task.done))}
      {:else if task.skippedWhy}{w.skipped(task.skippedWhy)}
        {#if mayAll}<button type="button" class="link" disabled={settling.busy} onclick={() => settling.settle(checklist, task, 'open')}
            >{w.unskip}</button
          >{/if}
      {:else}
        {about ? '' : text.owner(task.owner, task.ownerName)}
        {#if !task.required}· {w.optional}{/if}
        {#if due}· <span class={tone}>{w.by(text.day(due))}{task.canStart ? `, ${text.t.state[task.state]}` : ''}</span>{/if}
        {#if !task.canStart && task.earliestStart}· {w.canBegin(text.day(task.earliestStart))}{/if}
        {#if mayAll}<button
            type="button"
            class="link"
            aria-label={w.skipOf(task.name)}
            disabled={settling.busy}
            onclick={() => (skipping = true)}>{w.skip}</button
          >{/if}
      {/if}
    </p>
    {#if task.instructions && standing === 'open' && task.canStart}<div class="text-soft text-xs">
        <Markdown text={task.instructions} />
      </div>{/if}
  </div>
</div>

<Dialog bind:open={skipping} title={w.skipTitle(task.name)} focus="#run-skip-why">
  <form class="space-y-3 px-5 pt-3 pb-5" onsubmit={skip}>
    <TextField id="run-skip-why" label={w.skipWhy} bind:value={why} maxlength={500} error={missing ? text.t.problems.missing : undefined} />
    <div class="flex justify-end gap-3">
      <Button onclick={() => (skipping = false)}>{text.t.common.cancel}</Button>
      <Button type="submit" look="danger" disabled={settling.busy}>{w.skipAct}</Button>
    </div>
  </form>
</Dialog>

<script lang="ts">
  import { again } from '$lib/api/again';
  import { api, ApiProblem, data, type Api } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { done, failed } from '$lib/ui/toast';
  import { createMutation, useQueryClient } from '@tanstack/svelte-query';
  import { untrack } from 'svelte';
  import { mailKeys } from './queries';
  import { words } from './words';

  /** When does the firm remind, and does it at all? */
  let { settings }: { settings: Api['ReminderSettings'] } = $props();
  const client = useQueryClient();
  const w = $derived(words());
  // What is being typed stays while the page is fetched again.
  const typed = $state(
    untrack(() => ({
      before: (settings.before ?? []).join(', '),
      onDue: settings.onDue,
      every: String(settings.every),
      most: String(settings.most),
      escalateAfter: settings.escalateAfter === null ? '' : String(settings.escalateAfter),
      at: settings.at ?? '',
      paused: settings.paused
    }))
  );
  let problem = $state<unknown>();
  // Of a list one number of it may be meant.
  const error = (part: string) =>
    problem instanceof ApiProblem ? text.problem(problem.errors.find((e) => e.pointer.startsWith(`/${part}`))) : undefined;
  // What is no number is refused by the server, at its field.
  const number = (entered: string) => (/^\d{1,6}$/.test(entered.trim()) ? Number(entered) : -1);
  const save = createMutation(() => ({
    mutationFn: () =>
      data(
        api.PUT('/api/reminders/settings', {
          body: {
            before: typed.before
              .split(/[ ,;]+/)
              .filter(Boolean)
              .map(number),
            onDue: typed.onDue,
            every: number(typed.every),
            most: number(typed.most),
            escalateAfter: typed.escalateAfter.trim() === '' ? null : number(typed.escalateAfter),
            at: typed.at.trim(),
            paused: typed.paused
          }
        })
      ),
    onMutate: () => (problem = undefined),
    onSuccess: () => done(w.saved),
    onError: (e) => {
      problem = e;
      if (!(e instanceof ApiProblem && e.errors.length > 0)) failed(text.failure(e));
    },
    onSettled: () => again(client, mailKeys.all)
  }));
</script>

<form
  class="border-rule grid max-w-3xl gap-x-5 gap-y-1 border-t pt-2 sm:grid-cols-3"
  aria-labelledby="reminder-settings"
  onsubmit={(e) => {
    e.preventDefault();
    save.mutate();
  }}
>
  <h2 id="reminder-settings" class="col-span-full text-base">{w.settings}</h2>
  <TextField id="remind-before" label={w.before} note={w.beforeNote} bind:value={typed.before} error={error('before')} />
  <TextField id="remind-every" label={w.every} bind:value={typed.every} error={error('every')} />
  <TextField id="remind-most" label={w.most} bind:value={typed.most} error={error('most')} />
  <TextField
    id="escalate-after"
    label={w.escalateAfter}
    note={w.escalateNote}
    bind:value={typed.escalateAfter}
    error={error('escalateAfter')}
  />
  <TextField id="remind-at" label={w.time} bind:value={typed.at} error={error('at')} />
  <div class="flex flex-col justify-center gap-1">
    <label class="flex items-center gap-2"><input type="checkbox" bind:checked={typed.onDue} />{w.onDue}</label>
    <label class="flex items-center gap-2"><input type="checkbox" bind:checked={typed.paused} />{w.pause}</label>
  </div>
  <div class="col-span-full pt-1"><Button type="submit" disabled={save.isPending}>{w.save}</Button></div>
</form>

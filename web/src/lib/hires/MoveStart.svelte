<script lang="ts">
  import { api, ApiProblem, data, type Api } from '$lib/api/client';
  import { fieldTitle } from '$lib/text/fieldLabels.svelte';
  import { keys } from '$lib/keys/keys.svelte';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import DateField from '$lib/ui/DateField.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { done, failed } from '$lib/ui/toast';
  import { createMutation, createQuery, keepPreviousData, useQueryClient } from '@tanstack/svelte-query';
  import { untrack } from 'svelte';
  import { hireQuery, hireKeys } from './queries';
  import StartEffects from './StartEffects.svelte';
  import TaskMoves from './TaskMoves.svelte';
  import { occasionWords } from '$lib/occasions/words';
  import { words } from './words';

  /** Moves a start, after saying what that changes. */
  let { open = $bindable(), id, to = null }: { open: boolean; id: string; to?: string | null } = $props();
  const t = $derived(words().start);
  const client = useQueryClient();
  const hire = createQuery(() => ({ ...hireQuery(id), enabled: open }));
  const o = $derived(occasionWords(hire.data?.occasion ?? 'arrival').move);

  let wanted = $state<string | null>(untrack(() => to));
  let why = $state('');
  let stale = $state<Api['ChecklistResponse']>();
  let refused = $state<string>();
  // What was seen when this was opened: a start that somebody else moves meanwhile must not slip by.
  let seen = $state<string>();

  $effect(() => {
    if (open) {
      wanted = untrack(() => to);
      stale = undefined;
      seen = undefined;
    }
  });
  $effect(() => {
    if (open && hire.data && !seen) seen = hire.data.version;
  });

  const name = $derived(hire.data ? `${hire.data.givenName} ${hire.data.familyName}`.trim() : '');
  const change = createQuery(() => ({
    queryKey: hireKeys.start(id, wanted),
    queryFn: () => data(api.GET('/api/hires/{id}/start-change', { params: { path: { id }, query: { to: wanted! } } })),
    enabled: open && wanted !== null && wanted !== hire.data?.start,
    placeholderData: keepPreviousData
  }));
  const preview = $derived(wanted && wanted !== hire.data?.start ? change.data : undefined);

  const shown = (value: unknown) => (typeof value === 'string' && /^\d{4}-\d\d-\d\d$/.test(value) ? text.day(value) : String(value));

  const moving = createMutation(() => ({
    mutationFn: async (start: string) => {
      const saved = await data(
        api.PUT('/api/hires/{id}/start', {
          params: { path: { id } },
          body: { start, why: why.trim() || null },
          headers: { 'If-Match': seen! }
        })
      );
      client.setQueryData(['hire', id], saved);
      void client.invalidateQueries({ queryKey: hireKeys.arrivals });
      open = false;
      done(o.moved(name, text.day(start)));
    },
    onError: (e) => {
      if (e instanceof ApiProblem && e.status === 412) stale = e.current as Api['ChecklistResponse'];
      else if (e instanceof ApiProblem && e.errors.length > 0) refused = text.problem(e.errors[0]);
      else failed(text.failure(e));
    }
  }));
  function move() {
    if (!wanted || !seen || moving.isPending) return;
    refused = undefined;
    moving.mutate(wanted);
  }
  function keepTheirs() {
    client.setQueryData(['hire', id], stale);
    open = false;
  }
  function takeMine() {
    seen = stale!.version;
    stale = undefined;
    void move();
  }

  $effect(() => (open ? keys.use(() => [{ key: 'Ctrl+s', run: () => void move(), whileTyping: true }], true) : undefined));
</script>

<Dialog bind:open title={stale ? o.staleTitle : o.title(name)} focus="#start-to">
  {#if stale && wanted}
    <div class="px-5 pt-2 pb-5">
      <p role="alert">{t.stale(text.day(stale.start), text.day(wanted))}</p>
      <div class="mt-4 flex flex-wrap gap-3">
        <Button onclick={keepTheirs}>{t.keepTheirs}</Button>
        <Button look="primary" onclick={takeMine}>{t.takeMine}</Button>
      </div>
    </div>
  {:else}
    <form
      class="px-5 pt-3 pb-4"
      onsubmit={(e) => {
        e.preventDefault();
        void move();
      }}
    >
      <div class="grid gap-x-6 gap-y-2 sm:grid-cols-2">
        <DateField id="start-to" label={o.to} bind:value={wanted} error={refused} onchange={() => (refused = undefined)} />
        <TextField id="start-why" label={t.why} bind:value={why} maxlength={500} />
      </div>
      <div aria-live="polite">
        {#if preview}
          <p class="mt-2">
            {text.day(preview.from)} → <strong>{text.day(preview.to)}</strong>, {t.shift(preview.days)}.
            <strong class={preview.feasibleAfter ? 'text-sea' : 'text-rust'}>{preview.feasibleAfter ? t.ready : t.notReady}</strong>
          </p>
          <p class="text-soft mt-1 text-xs">{o.values}</p>
          {#if preview.values.length > 0}
            <p class="mt-1 text-xs">
              {t.anew}
              {#each preview.values as value, i (value.field)}{i > 0 ? '; ' : ''}{fieldTitle(value.field)}
                {shown(value.before)} → <strong>{shown(value.after)}</strong>{/each}.
            </p>
          {/if}
          {#if preview.before && preview.after}<StartEffects before={preview.before} after={preview.after} />{/if}
          <TaskMoves tasks={preview.tasks} />
        {:else}
          <p class="text-soft mt-2">{t.nothing}</p>
        {/if}
      </div>
      <div class="mt-4 flex flex-wrap justify-end gap-3">
        <Button onclick={() => (open = false)}>{t.cancel}</Button>
        <Button type="submit" look="primary" key="Ctrl+s" disabled={!preview || moving.isPending || !seen}
          >{o.act(wanted ? text.day(wanted) : '…')}</Button
        >
      </div>
    </form>
  {/if}
</Dialog>

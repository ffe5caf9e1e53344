<script lang="ts">
  import { goto } from '$app/navigation';
  import { again } from '$lib/api/again';
  import { api, ApiProblem, data, type Api } from '$lib/api/client';
  import { KeptTyping } from '$lib/api/kept';
  import { session } from '$lib/api/session.svelte';
  import { keys } from '$lib/keys/keys.svelte';
  import { payCheckKeys } from '$lib/payCheck/queries';
  import { recordKeys } from '$lib/record/queries';
  import MadeRevisions from '$lib/revision/MadeRevisions.svelte';
  import { madeQuery, previewQuery, revisionKeys } from '$lib/revision/queries';
  import { asked, emptyForm, notNumbers, sheetOf, type RevisionForm } from '$lib/revision/revisionForm';
  import RevisionInputs from '$lib/revision/RevisionInputs.svelte';
  import RevisionLines from '$lib/revision/RevisionLines.svelte';
  import { words } from '$lib/revision/words';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import { settled } from '$lib/ui/settled.svelte';
  import { done, failed } from '$lib/ui/toast';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { createQuery, keepPreviousData, useQueryClient } from '@tanstack/svelte-query';
  import { untrack } from 'svelte';

  // Do these people get this much more from that day, and can the firm afford it?
  const w = $derived(words());
  const client = useQueryClient();
  const typing = untrack(() => new KeptTyping<RevisionForm>(session.user!.id, 'revision'));
  let form = $state<RevisionForm>(untrack(() => typing.kept ?? emptyForm(session.today)));
  let why = $state('');
  let busy = $state(false);
  let errors = $state<ApiProblem['errors']>([]);
  const question = $derived(asked(form));
  $effect(() => typing.keep(question === undefined ? undefined : $state.snapshot(form)));

  const rested = settled(() => JSON.stringify(question));
  const settledQuestion = $derived(rested.current === undefined ? undefined : (JSON.parse(rested.current) as Api['RevisionAsked']));
  const preview = createQuery(() => ({ ...previewQuery(settledQuestion), placeholderData: keepPreviousData, retry: false }));
  const made = createQuery(() => madeQuery());
  const shown = $derived(question === undefined || preview.error ? undefined : preview.data);
  // What is shown is of what is typed: only then it can be agreed to.
  const isCurrent = $derived(shown !== undefined && !preview.isPlaceholderData && rested.current === JSON.stringify(question));
  const refused = $derived(preview.error instanceof ApiProblem ? preview.error.errors : []);

  const pointers: Partial<Record<keyof RevisionForm, string>> = {
    grade: '/group/grade',
    job: '/group/job',
    site: '/group/site',
    payGroup: '/group/payGroup',
    percent: '/percent',
    atLeast: '/atLeastHourly',
    from: '/from'
  };
  function problem(key: keyof RevisionForm) {
    if (notNumbers(form).includes(key as 'percent')) return w.notNumber;
    return text.problem(refused.find((e) => e.pointer === pointers[key]));
  }
  const elsewhere = $derived(refused.find((e) => !Object.values(pointers).includes(e.pointer)));
  const reason = $derived(errors.find((e) => e.pointer === '/why'));

  async function act(what: () => Promise<unknown>, said: () => void) {
    if (busy) return;
    [busy, errors] = [true, []];
    try {
      await what();
      said();
    } catch (e) {
      if (e instanceof ApiProblem && e.errors.some((one) => one.pointer === '/why')) errors = e.errors;
      else failed(text.failure(e));
    }
    await again(client, revisionKeys.all, recordKeys.all, payCheckKeys.all);
    busy = false;
  }
  function make() {
    if (!isCurrent || !shown || !question) return;
    const [id, n] = [crypto.randomUUID(), shown.raised];
    void act(
      () => data(api.POST('/api/pay-revisions', { body: { id, asked: question, why: why.trim() || null, seen: shown.version } })),
      () => {
        [form, why] = [emptyForm(session.today), ''];
        done(w.made(n), { label: w.undo, run: () => undo(id) });
      }
    );
  }
  const undo = (id: string) =>
    void act(
      () => data(api.POST('/api/pay-revisions/{id}/undo', { params: { path: { id } } })),
      () => done(w.undone)
    );
  $effect(() => keys.use(() => [{ key: 'Escape', run: () => void goto('/people') }]));
</script>

<svelte:head><title>{w.title} · Fid</title></svelte:head>

<div class="page pb-8">
  <div class="flex flex-wrap items-center justify-between gap-x-6 gap-y-2 pt-5 pb-3">
    <div aria-live="polite">
      {#if !shown}<h1 class="text-2xl leading-tight">{w.ask}</h1>
      {:else if shown.raised === 0}<h1 class="text-2xl leading-tight">{w.nobody}</h1>
      {:else}
        <h1 class="text-2xl leading-tight">{w.raised(shown.raised, shown.lines.length, text.day(form.from!))}</h1>
        <p class="font-semibold tabular-nums">
          {w.budget(text.money(shown.budget), text.number((shown.budget / shown.annualBefore) * 100, 2))}
        </p>
      {/if}
    </div>
    <p class="flex gap-4 text-xs">
      <a class="link font-semibold" href="/people">{w.back}</a>
      {#if isCurrent && question && shown && shown.lines.length > 0 && session.may('export people')}
        <a class="link font-semibold" download href={sheetOf(question, text.language)} title={w.sheetNote}>{w.sheet}</a>
      {/if}
    </p>
  </div>
  <RevisionInputs bind:form {problem} />
  {#if elsewhere}<p class="text-rust py-2" role="status">{text.problem(elsewhere)}</p>{/if}
  {#if shown && shown.lines.length > 0}
    {#if shown.raised > 0}
      <div class="flex flex-wrap items-end gap-x-6 gap-y-2 py-4">
        <div class="min-w-0 flex-1 basis-80">
          <label class="text-soft text-xs" for="revision-why">{w.why}</label>
          <input
            id="revision-why"
            bind:value={why}
            maxlength={500}
            class="w-full border-b bg-transparent py-1 font-medium {reason ? 'border-rust' : 'border-ink'}"
            aria-invalid={reason ? true : undefined}
            aria-describedby="revision-why-problem"
          />
          <p id="revision-why-problem" class="text-rust min-h-5 text-xs" role="status">{text.problem(reason) ?? ''}</p>
        </div>
        <p class="pb-5"><Button look="primary" disabled={busy || !isCurrent} onclick={make}>{w.make(shown.raised)}</Button></p>
      </div>
    {/if}
    <RevisionLines preview={shown} />
  {:else if question && preview.isPending}
    <Waiting error={null} retry={() => preview.refetch()} />
  {/if}
  {#if made.data && made.data.length > 0}
    <MadeRevisions made={made.data} {busy} onundo={undo} />
  {/if}
</div>

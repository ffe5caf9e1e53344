<script lang="ts">
  import { goto } from '$app/navigation';
  import { again } from '$lib/api/again';
  import { api, ApiProblem, data, type Api } from '$lib/api/client';
  import { KeptTyping } from '$lib/api/kept';
  import { session } from '$lib/api/session.svelte';
  import Band from '$lib/drawing/Band.svelte';
  import { hireKeys } from '$lib/hires/queries';
  import { keys } from '$lib/keys/keys.svelte';
  import { recordKeys, recordQuery } from '$lib/record/queries';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import { settled } from '$lib/ui/settled.svelte';
  import { done, failed } from '$lib/ui/toast';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { createQuery, keepPreviousData, useQueryClient } from '@tanstack/svelte-query';
  import { untrack } from 'svelte';
  import { asked, differs, formOf, notNumbers, type OfferForm } from './offerForm';
  import OfferInputs from './OfferInputs.svelte';
  import { offerQuery } from './queries';
  import { words } from './words';

  // Which form do I offer, and what does it mean for them and for the firm?
  let { id }: { id: string } = $props();
  const w = $derived(words());
  const client = useQueryClient();
  const most = 3;
  const letter = (i: number) => 'ABC'[i]!;
  const typing = untrack(() => new KeptTyping<OfferForm[]>(session.user!.id, 'offer', id));

  const query = createQuery(() => recordQuery(id));
  const record = $derived(query.data);
  const held = $derived(record && formOf(record, (n) => text.number(n, Number.isInteger(n) ? undefined : 2)));
  let forms = $state<OfferForm[]>([]);
  let errors = $state<{ form: number; entries: ApiProblem['errors'] }>();
  let why = $state('');
  let busy = $state(false);
  $effect(() => {
    if (held && untrack(() => forms.length) === 0) forms = typing.kept ?? [{ ...held }, { ...held }];
  });
  $effect(() => {
    // Before the record is there, nothing was typed yet: what was kept stays.
    if (held && forms.length > 0) typing.keep(forms.some((f) => differs(f, held)) ? $state.snapshot(forms) : undefined);
  });

  const sent = $derived(held ? forms.map((f) => asked(f, held)) : []);
  const readable = $derived(forms.length > 0 && forms.every((f) => notNumbers(f).length === 0));
  const rested = settled(() => JSON.stringify(sent));
  const offer = createQuery(() => ({
    ...offerQuery(id, record?.version ?? '', JSON.parse(rested.current) as Api['OfferForm'][]),
    enabled: record !== undefined && readable && rested.current !== '[]',
    placeholderData: keepPreviousData,
    retry: false
  }));
  const refused = $derived(offer.error instanceof ApiProblem ? offer.error.errors : []);

  /** What is wrong with a field of a form: what is no number, what the server said of the forms, or of the one to be taken over. */
  function problem(i: number, key: keyof OfferForm, field: string) {
    if (notNumbers(forms[i]!).includes(key as 'rate')) return w.notNumber;
    const where = field === 'start' ? 'start' : `changes/${field}`;
    const taking = errors?.form === i ? errors.entries.find((e) => e.pointer === `/${where}`) : undefined;
    return text.problem(taking ?? refused.find((e) => e.pointer === `/forms/${i}/${where}`));
  }
  const reason = $derived(errors?.entries.find((e) => e.pointer === '/why'));

  async function take(i: number) {
    if (!record) return;
    busy = true;
    errors = undefined;
    try {
      await data(
        api.PUT('/api/records/{id}/offer/taken', {
          params: { path: { id } },
          body: { ...sent[i]!, why: why.trim() || null },
          headers: { 'If-Match': record.version }
        })
      );
      typing.keep(undefined);
      done(w.taken);
      await again(client, recordKeys.all, hireKeys.all, hireKeys.arrivals);
      await goto(`/people/${id}#section-pay`);
    } catch (e) {
      if (e instanceof ApiProblem && e.errors.length > 0) errors = { form: i, entries: e.errors };
      else failed(text.failure(e));
      if (e instanceof ApiProblem && e.status === 412) await query.refetch();
    }
    busy = false;
  }

  async function paper() {
    busy = true;
    try {
      const pdf = await data(
        api.POST('/api/records/{id}/offer/paper', { params: { path: { id } }, body: { forms: sent }, parseAs: 'blob' })
      );
      const link = Object.assign(document.createElement('a'), {
        href: URL.createObjectURL(pdf as unknown as Blob),
        download: `${w.title(offer.data?.name ?? '')}.pdf`
      });
      link.click();
      URL.revokeObjectURL(link.href);
    } catch (e) {
      failed(text.failure(e));
    }
    busy = false;
  }

  type Form = Api['OfferedPay'];
  const money = (n: number | null | undefined) => (n === null || n === undefined ? w.none : text.money(n));
  const results = $derived([
    {
      title: w.sections.them,
      rows: [
        [w.rows.yearly, (f: Form) => money(f.rate?.stated.year)],
        [w.rows.hourly, (f: Form) => money(f.rate?.stated.hour)],
        [w.rows.payDay, (f: Form) => (f.firstPay ? text.day(f.firstPay.periods.at(-1)!.payDate) : w.none)],
        [w.rows.first, (f: Form) => money(f.firstPay?.slip?.gross)],
        [w.rows.firstNet, (f: Form) => money(f.firstPay?.slip?.net)],
        [w.rows.period, (f: Form) => money(f.wholePeriod?.gross)],
        [w.rows.net, (f: Form) => money(f.wholePeriod?.net)]
      ] as const
    },
    {
      title: w.sections.firm,
      rows: [
        [w.rows.cost, (f: Form) => money(f.cost?.annualCost)],
        [w.rows.loaded, (f: Form) => money(f.cost?.loadedHourly)]
      ] as const
    }
  ]);
  $effect(() => keys.use(() => [{ key: 'Escape', run: () => void goto(`/people/${id}`) }]));
</script>

<svelte:head><title>{record ? `${w.title(`${record.givenName} ${record.familyName}`)} · ` : ''}Fid</title></svelte:head>

{#if !record || !held}
  <Waiting error={query.error} retry={() => query.refetch()} />
{:else}
  <div class="page pb-8">
    <div class="flex flex-wrap items-center justify-between gap-4 pt-5 pb-3">
      <h1 class="text-2xl"><bdi>{w.title(`${record.givenName} ${record.familyName}`)}</bdi></h1>
      <div class="flex flex-wrap items-center gap-4">
        <a class="link text-xs font-semibold" href="/people/{id}">{w.back}</a>
        {#if forms.length < most}<Button onclick={() => (forms = [...forms, { ...forms.at(-1)! }])}>{w.add}</Button>{/if}
        <Button disabled={busy || !offer.data || !readable} onclick={paper}>{w.paper}</Button>
      </div>
    </div>
    <ul class="grid gap-x-8 gap-y-6" style:grid-template-columns="repeat(auto-fit, minmax(min(100%, 18rem), 1fr))">
      {#each forms as form, i (i)}
        {@const of = offer.data?.forms[i]}
        <li class="border-ink border-t-2 pt-2">
          <div class="flex items-center justify-between gap-3">
            <h2 class="text-lg">{w.form(letter(i))}</h2>
            {#if forms.length > 1}<button
                type="button"
                class="link min-h-6 text-xs"
                onclick={() => ([forms, errors] = [forms.filter((_, at) => at !== i), undefined])}>{w.remove(letter(i))}</button
              >{/if}
          </div>
          <OfferInputs bind:form={forms[i]!} number={i} problem={(key, field) => problem(i, key, field)} />
          <div aria-live="polite">
            {#each results as part (part.title)}
              <h3 class="pt-3 font-sans text-sm font-semibold tracking-normal">{part.title}</h3>
              <dl class="grid grid-cols-[1fr_auto] gap-x-4 gap-y-1">
                {#each part.rows as [label, shown] (label)}
                  <dt class="text-soft">{label}</dt>
                  <dd class="text-right font-semibold tabular-nums">{of ? shown(of) : w.none}</dd>
                {/each}
              </dl>
            {/each}
            {#if of?.band && of.band.pay !== null}
              <Band band={of.band} />
              <p class="text-xs {of.band.position === 'within' ? 'text-soft' : 'text-rust font-semibold'}">
                {w.rows.band}: {w.position[of.band.position ?? 'within']}, {text.number(of.band.compaRatio ?? 0, 3)}
              </p>
            {/if}
          </div>
          <p class="pt-3">
            <Button look="primary" disabled={busy || !readable || !differs(form, held)} onclick={() => take(i)}>{w.take(letter(i))}</Button>
          </p>
        </li>
      {/each}
    </ul>
    <div class="max-w-xl pt-6">
      <label class="text-soft text-xs" for="offer-why">{w.why}</label>
      <input
        id="offer-why"
        bind:value={why}
        maxlength={500}
        class="w-full border-b bg-transparent py-1 font-medium {reason ? 'border-rust' : 'border-ink'}"
        aria-invalid={reason ? true : undefined}
        aria-describedby="offer-why-problem"
      />
      <p id="offer-why-problem" class="text-rust min-h-5 text-xs" role="status">{text.problem(reason) ?? ''}</p>
    </div>
  </div>
{/if}

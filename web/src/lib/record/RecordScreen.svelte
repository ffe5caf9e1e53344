<script lang="ts">
  import { beforeNavigate } from '$app/navigation';
  import { goto } from '$app/navigation';
  import { api, data } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import HireClosed from '$lib/hires/HireClosed.svelte';
  import HireTitle from '$lib/hires/HireTitle.svelte';
  import { words } from '$lib/hires/words';
  import { words as occasions, type HireOccasion } from '$lib/occasions/words';
  import MergePeople from './MergePeople.svelte';
  import { recordQuery } from '$lib/record/queries';
  import { keys } from '$lib/keys/keys.svelte';
  import { text } from '$lib/text/index.svelte';
  import { settled } from '$lib/ui/settled.svelte';
  import { done, failed } from '$lib/ui/toast';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { createQuery, keepPreviousData, useQueryClient } from '@tanstack/svelte-query';
  import BothVersions from './BothVersions.svelte';
  import { Editing } from './editing.svelte';
  import { typedOf } from '$lib/text/typed';
  import { allFields, fieldAt, rowIn, rowsIn } from './rows';
  import { hireOf } from './hireOf';
  import { KeptDraft } from './kept';
  import { optionsQuery } from '$lib/lists/queries';
  import { tick, untrack, type Component } from 'svelte';
  import ByJob from './ByJob.svelte';
  import Given from './Given.svelte';
  import RecordField from './RecordField.svelte';
  import RecordRows from './RecordRows.svelte';
  import Readings from './Readings.svelte';
  import SaveSheet from './SaveSheet.svelte';
  import { words as recordWords } from './words';
  import { recordKeys } from './queries';
  import { again } from '$lib/api/again';
  import { hireKeys } from '$lib/hires/queries';

  type Later = Exclude<HireOccasion, 'arrival'>;
  const later: Later[] = ['jobChange', 'leaving'];

  /** A person's record: sections, fields on a grid, and readings that follow what one types. */
  let { id }: { id: string } = $props();
  const client = useQueryClient();
  const query = createQuery(() => recordQuery(id));
  const options = optionsQuery();
  const editing = new Editing();
  let merging = $state(false);
  // Fetched for those who look after accounts: others load without.
  let AccountOf = $state<Component<{ employment: string }>>();
  if (session.may('see account')) void import('$lib/admin/AccountOf.svelte').then((part) => (AccountOf = part.default));
  const t = $derived(recordWords());

  const record = $derived(query.data);
  // Fetched when somebody changes jobs or leaves.
  let OpenChecklist = $state<typeof import('./OpenChecklist.svelte').default>();
  let opening = $state<Later>();
  /** What can be opened for them: nothing of what is under way, and nothing for somebody who never came. */
  const offers = $derived(
    session.may('open hire') && record && !record.closedHire
      ? later.filter((one) => !record.checklists.some((c) => c.occasion === one && !c.finished))
      : []
  );
  async function openFor(occasion: Later) {
    OpenChecklist ??= (await import('./OpenChecklist.svelte')).default;
    opening = occasion;
  }
  let kept = $state<string>();
  let looked = false;
  // What was typed and not saved outlives a closed tab; what is sensitive does not leave the page.
  $effect(() => {
    if (!record) return;
    const here = new KeptDraft(session.user!.id, id);
    if (!looked) {
      looked = true;
      kept = untrack(() => here.restore(editing));
    } else here.keep(editing, record);
  });
  const changes = $derived(record ? editing.sent(record) : {});
  const rested = settled(() => JSON.stringify(changes));
  // What was saved or taken back is nothing any more, at once.
  const asked = $derived(editing.count === 0 ? '{}' : rested.current);
  const readings = createQuery(() => ({
    queryKey: recordKeys.readings(id, record?.version, asked),
    queryFn: ({ signal }) =>
      data(
        api.POST('/api/records/{id}/readings', { params: { path: { id } }, body: { changes: JSON.parse(asked) as typeof changes }, signal })
      ),
    enabled: record !== undefined,
    placeholderData: keepPreviousData
  }));
  // As the server sees the record with what is typed so far.
  const evaluation = $derived((editing.count > 0 ? readings.data?.evaluation : undefined) ?? record?.evaluation);
  const shown = $derived(new Set(evaluation?.shown ?? []));
  const given = $derived(new Map((evaluation?.set ?? []).map((s) => [s.field, s])));
  const misfits = $derived(new Map((evaluation?.errors ?? []).map((e) => [e.field, e.misfit])));
  const typed = (key: string) => {
    const field = record && fieldAt(record, key);
    return (
      editing.changes[key] ?? (given.has(key) ? typedOf({ type: field!.type, value: given.get(key)!.value }) : field ? typedOf(field) : '')
    );
  };
  const onRate = $derived.by(() => {
    const field = record && fieldAt(record, 'pay_rate');
    return field && (field.access === 'edit' || field.access === 'ask')
      ? (rate: number) => editing.set(record!, field, String(rate))
      : undefined;
  });
  // In each section what is needed and missing comes first, and what is empty and may stay so is folded away: as the record was
  // when it was opened or saved, so that nothing moves while somebody types.
  const laidOut = $derived.by(() => {
    const empty = (f: { key: string; value?: unknown }) => f.value === null || f.value === undefined;
    const asks = new Set([...(record?.evaluation.missingNow ?? []), ...(record?.evaluation.missingLater ?? []).flatMap((l) => l.fields)]);
    const there = new Set(record?.evaluation.shown ?? []);
    const set = new Set((record?.evaluation.set ?? []).map((s) => s.field));
    const fold = (record ? allFields(record) : []).filter((f) => there.has(f.key) && empty(f) && !asks.has(f.key) && !set.has(f.key));
    return { asks, fold: new Set(fold.map((f) => f.key)) };
  });
  let unfolded = $state<string[]>([]);
  const unfold = (section: string | undefined) => {
    if (section) unfolded = [...unfolded, section];
  };
  const sectionOf = $derived(new Map((record?.sections ?? []).flatMap((s) => s.fields.map((f) => [f.key, s.key] as const))));
  const isFolded = (key: string) =>
    laidOut.fold.has(key) &&
    !unfolded.includes(sectionOf.get(key) ?? '') &&
    !Object.keys(editing.changes).some((a) => rowsIn(a) === key) &&
    !needed.has(key) &&
    !misfits.has(key) &&
    !given.has(key) &&
    !editing.errors.some((e) => rowsIn(e.pointer.slice('/changes/'.length)) === key);
  const isFilled = (key: string) => typed(key).trim() !== '';
  const sections = $derived(
    (record?.sections ?? []).map((s) => ({ ...s, fields: s.fields.filter((f) => shown.has(f.key)) })).filter((s) => s.fields.length > 0)
  );
  /** What of a section is laid out, what is needed and missing first. */
  const inOrder = <F extends { key: string }>(all: F[]) => {
    const open = all.filter((f) => !isFolded(f.key));
    return [...open.filter((f) => laidOut.asks.has(f.key)), ...open.filter((f) => !laidOut.asks.has(f.key))];
  };
  const fields = $derived(sections.flatMap((s) => s.fields));
  const filled = $derived(fields.filter((f) => isFilled(f.key)).length);
  const photo = $derived.by(() => {
    const file = fields.find((f) => f.key === 'photo')?.value;
    return typeof file === 'string' ? `/api/records/${id}/fields/photo/file?file=${file}` : undefined;
  });
  /** From when on each field that is still empty is needed. */
  const needed = $derived(
    new Map(
      [
        ...(evaluation?.missingNow ?? []).map((key) => [key, 'now'] as const),
        ...(evaluation?.missingLater ?? []).flatMap((l) => l.fields.map((key) => [key, l.stage] as const))
      ].filter(([key]) => !isFilled(key))
    )
  );

  async function save() {
    if (!record || editing.count === 0 || editing.busy) return;
    if (editing.overwrites && !editing.said) {
      editing.asking = true;
      return;
    }
    try {
      const saved = await editing.save(record);
      if (saved) {
        client.setQueryData(['record', id], saved);
        void again(client, hireKeys.arrivals, hireKeys.all);
        done(t.saved);
      } else if (editing.errors[0]) void focusField(editing.errors[0].pointer.split('/').at(-1)!);
    } catch (e) {
      failed(text.failure(e));
    }
  }
  async function ask(direct: string[]) {
    if (!record || editing.count === 0 || editing.busy) return;
    if (editing.overwrites && !editing.said) {
      editing.asking = true;
      return;
    }
    try {
      const asked = await editing.ask(record, direct);
      if (asked) done(t.asked(asked.steps[0]?.who ?? []));
      else if (editing.errors[0]) void focusField(editing.errors[0].pointer.split('/').at(-1)!);
      void again(client, recordKeys.one(id));
    } catch (e) {
      failed(text.failure(e));
    }
  }
  const focusField = async (key: string) => {
    if (key === 'why') return document.getElementById('change-why')?.focus();
    const whole = rowsIn(key);
    if (isFolded(whole)) unfold(sectionOf.get(whole));
    if (rowIn(key) !== undefined) editing.opened = `${whole}@${rowIn(key)}`;
    await tick();
    const field = document.getElementById(`field-${key}`);
    field?.scrollIntoView({ block: 'center' });
    field?.focus();
  };
  function nextGap() {
    const order = sections.flatMap((s) => inOrder(s.fields)).map((f) => f.key);
    const gaps = order.filter((key) => needed.has(key));
    const here = document.activeElement?.id.replace('field-', '') ?? '';
    const after = gaps.find((k) => order.indexOf(k) > order.indexOf(here)) ?? gaps[0];
    if (after) void focusField(after);
  }

  $effect(() =>
    keys.use(() => [
      {
        key: 'Ctrl+s',
        label: text.t.keys.save,
        run: () => (record && editing.needsAsking(record) ? void ask(editing.direct) : void save()),
        whileTyping: true
      },
      { key: 'Ctrl+ArrowDown', label: text.t.keys.gap, run: nextGap, whileTyping: true },
      // The fields themselves answer to this one.
      { key: 'Alt+arrows', label: `Alt ↓ ${text.t.keys.source}`, run: () => {} },
      { key: 'Escape', run: () => void goto(session.home) }
    ])
  );
  beforeNavigate((navigation) => {
    if (editing.count === 0 || !session.user) return;
    // A tab that closes asks by itself once it is held up; within the application we ask.
    if (navigation.type === 'leave' || !confirm(t.leave)) navigation.cancel();
  });
</script>

<svelte:head><title>{record ? `${record.givenName} ${record.familyName}` : t.readings} · Fid</title></svelte:head>

{#if !record}
  <Waiting error={query.error} retry={() => query.refetch()} />
{:else}
  <div class="page">
    <HireTitle {...record} {filled} of={fields.length} hire={hireOf(record)} {photo} />
    {#if record.closedHire}<HireClosed closed={record.closedHire} />{/if}
    {#if AccountOf}<AccountOf employment={record.employmentId} />{/if}
    <div class="border-ink mt-3 grid border-t lg:grid-cols-[11.5rem_minmax(0,1fr)] xl:grid-cols-[11.5rem_minmax(0,1fr)_18rem]">
      <nav aria-label={t.sectionsLabel} class="border-rule py-2 lg:border-r">
        <ul class="flex flex-wrap lg:sticky lg:top-2 lg:block">
          {#each sections as section (section.key)}
            <li>
              <a href="#section-{section.key}" class="hover:bg-sheet flex gap-3 px-3 py-1.5 font-semibold lg:justify-between">
                {section.label[text.language]}
                <span class="text-soft text-xs font-normal"
                  >{t.filledOf(section.fields.filter((f) => isFilled(f.key)).length, section.fields.length)}</span
                >
              </a>
            </li>
          {/each}
          <li class="text-soft px-3 py-3 text-xs">
            {t.filled(filled, fields.length)}
            {#if needed.size > 0}<br /><button type="button" class="link text-ochre text-left font-semibold" onclick={nextGap}
                >{t.needed(needed.size)}</button
              >{/if}
          </li>
        </ul>
      </nav>
      <form
        class="min-w-0 lg:px-6"
        novalidate
        onsubmit={(e) => {
          e.preventDefault();
          void save();
        }}
      >
        {#if kept && editing.count > 0}<p class="text-ochre pt-3 text-sm" role="status">{t.draftKept(text.day(kept))}</p>{/if}
        {#if record.waiting.length > 0}
          <p class="border-ochre bg-ochre-tint mt-3 flex flex-wrap gap-x-3 border-l-4 px-4 py-2" role="status">
            <strong>{t.waiting(new Set(record.waiting.map((w) => w.request)).size)}</strong>
            {#each record.waiting as w (w.request + w.field)}
              <button type="button" class="link" onclick={() => void focusField(w.field)}
                >{fieldAt(record, w.field)?.label[text.language] ?? w.field}</button
              >
            {/each}
          </p>
        {/if}
        {#if misfits.size > 0}
          <p class="border-rust bg-rust-tint text-rust mt-3 flex flex-wrap gap-x-3 border-l-4 px-4 py-2" role="status">
            {t.doNotFit(misfits.size)}
            {#each allFields(record).filter((f) => misfits.has(f.key)) as field (field.key)}
              <button type="button" class="link font-semibold" onclick={() => void focusField(field.key)}
                >{field.label[text.language]}</button
              >
            {/each}
          </p>
        {/if}
        {#each sections as section (section.key)}
          <section id="section-{section.key}" aria-labelledby="title-{section.key}" class="pt-4">
            <h2 id="title-{section.key}" class="mb-2 text-lg">{section.label[text.language]}</h2>
            <div class="grid grid-cols-1 gap-x-5 gap-y-1 min-[28rem]:grid-cols-2 md:grid-cols-4">
              {#each inOrder(section.fields) as field (field.key)}
                {#if field.rows}
                  <RecordRows
                    {field}
                    {record}
                    {editing}
                    lists={options.data?.options ?? []}
                    {given}
                    {misfits}
                    needed={needed.get(field.key)}
                    {typed}
                  />
                {:else}
                  <RecordField
                    {field}
                    {record}
                    {editing}
                    lists={options.data?.options ?? []}
                    given={given.get(field.key)}
                    misfit={misfits.get(field.key)}
                    needed={needed.get(field.key)}
                    within={field.parent ? typed(field.parent) : ''}
                  />
                {/if}
              {/each}
              {#if section.key === 'work' && readings.data?.job}<ByJob job={readings.data.job} />{/if}
              {#if section.key === 'pay' && readings.data?.band}
                {@const band = readings.data.band}
                <Given label={t.grade} shown={band.grade} from={text.t.source.job(band.job)} />
                <Given
                  label={t.band}
                  shown="{text.money(band.min, true)} – {text.money(band.max, true)}"
                  from={text.t.source.job(band.job)}
                  wide
                />
              {/if}
            </div>
            {#if section.fields.some((f) => isFolded(f.key))}
              <p class="pt-1">
                <button
                  type="button"
                  class="link text-soft min-h-6 text-xs"
                  onclick={() => void focusField(section.fields.find((f) => isFolded(f.key))!.key)}
                  >{t.folded(section.fields.filter((f) => isFolded(f.key)).length)}</button
                >
              </p>
            {/if}
          </section>
        {/each}
      </form>
      <aside
        aria-label={t.readings}
        class="border-rule min-w-0 py-4 lg:col-start-2 xl:sticky xl:top-0 xl:col-start-auto xl:max-h-dvh xl:self-start xl:overflow-y-auto xl:border-l xl:pl-6"
      >
        {#if record.asOf > record.today}<p class="text-soft pb-3 text-xs">{t.asOf(text.day(record.asOf))}</p>{/if}
        {#if readings.data}<Readings readings={readings.data} employment={record.employmentId} {onRate} />{/if}
        {#if offers.length > 0}
          <p class="flex flex-wrap gap-x-4 pt-3 text-xs">
            {#each offers as one (one)}
              <button type="button" class="link min-h-6" onclick={() => void openFor(one)}>{occasions()[one].open.act}</button>
            {/each}
          </p>
        {/if}
        {#if session.may('merge record')}
          <p class="pt-3 text-xs"><button type="button" class="link" onclick={() => (merging = true)}>{words().merge.act}</button></p>
        {/if}
        {#if record.otherStints.length > 0}
          <section class="border-rule mt-4 border-t pt-3">
            <h2 class="text-sm">{t.otherStints}</h2>
            <ul class="pt-1 text-xs">
              {#each record.otherStints as stint (stint.employmentId)}
                <li>
                  <a class="link" href="/people/{stint.employmentId}"
                    >{text.day(stint.start)}{stint.end && stint.end >= stint.start ? ` – ${text.day(stint.end)}` : ''}</a
                  >{stint.end && stint.end < stint.start ? `, ${words().outcome.neverWas}` : ''}
                  {stint.job ?? ''} <span class="text-soft">{stint.number}</span>
                </li>
              {/each}
            </ul>
          </section>
        {/if}
      </aside>
    </div>
  </div>
  {#if editing.count > 0}
    <SaveSheet {record} {editing} {save} {ask} lists={options.data?.options ?? []} {focusField} />
  {/if}
  {#if OpenChecklist && opening}<OpenChecklist
      bind:open={() => true, (to) => !to && (opening = undefined)}
      occasion={opening}
      {record}
    />{/if}
  {#if merging}<MergePeople bind:open={merging} {id} />{/if}
  {#if editing.stale}
    <BothVersions {editing} lists={options.data?.options ?? []} resolved={(now) => client.setQueryData(['record', id], now)} />
  {/if}
{/if}

<script lang="ts">
  import { api, data, type Api } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import DateField from '$lib/ui/DateField.svelte';
  import FooterSheet from '$lib/ui/FooterSheet.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { settled } from '$lib/ui/settled.svelte';
  import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
  import { tick } from 'svelte';
  import { type Editing } from './editing.svelte';
  import { typedOf } from '$lib/text/typed';
  import { fieldAt, rowIn, rowsIn } from './rows';
  import { shownValue } from './show';
  import { recordKeys } from './queries';
  import { words } from './words';

  /** What is changed, old → new, and the question whether that corrects or begins something. */
  interface Props {
    record: Api['RecordResponse'];
    editing: Editing;
    save: () => void;
    /** Asks for what others have to agree to; given what can be saved at once. */
    ask: (direct: string[]) => void;
    lists: Api['ListOption'][];
    focusField: (key: string) => void;
  }
  let { record, editing, save, ask, lists, focusField }: Props = $props();
  const t = $derived(words());
  const lines = $derived(
    Object.entries(editing.changes).map(([key, now]) => {
      const f = fieldAt(record, key);
      const error = text.problem(editing.errors.find((e) => e.pointer === `/changes/${key}`));
      const rows = rowIn(key) === undefined ? undefined : fieldAt(record, rowsIn(key))?.label[text.language];
      if (!f) return { key, label: rows ?? key, old: t.rows.one, now: t.rows.gone, error };
      return {
        key,
        label: rows ? `${rows}, ${f.label[text.language]}` : f.label[text.language],
        old: f.display ?? shownValue(f, typedOf(f), lists),
        now: ['person', 'file'].includes(f.type) && now ? '…' : shownValue(f, now, lists),
        error
      };
    })
  );
  // Who would be asked, as far as others have to agree.
  const asks = $derived(editing.needsAsking(record));
  const sent = settled(() => JSON.stringify([editing.sent(record), editing.from]));
  const route = createQuery(() => ({
    queryKey: recordKeys.route(record.employmentId, record.version, sent.current),
    queryFn: ({ signal }) =>
      data(
        api.POST('/api/records/{id}/requests/route', {
          params: { path: { id: record.employmentId } },
          body: { changes: editing.sent(record), from: editing.from, why: null },
          signal
        })
      ),
    enabled: asks,
    placeholderData: keepPreviousData,
    retry: false
  }));
  $effect(() => {
    editing.direct = (asks && route.data?.direct) || [];
  });
  const act = () => (asks ? ask(editing.direct) : save());
  // Where nothing that was there is overwritten, there is nothing to say.
  const isSaid = $derived(editing.said || !editing.overwrites);
  const ways = $derived.by(() => {
    const fix = {
      on: isSaid && editing.from === null,
      label: t.fix,
      take: () => {
        const asked = editing.asking;
        editing.say(null);
        if (asked) act();
      }
    };
    const from = {
      on: isSaid && editing.from !== null,
      label: t.from(text.shortDay(editing.from ?? record.asOf)),
      take: async () => {
        editing.say(editing.from ?? record.asOf);
        await tick();
        day?.querySelector('input')?.focus();
      }
    };
    return editing.likelyFrom ? [from, fix] : [fix, from];
  });
  let choice = $state<HTMLElement>();
  let day = $state<HTMLElement>();
  $effect(() => {
    if (editing.asking) choice?.querySelector('button')?.focus();
  });
  const otherErrors = $derived(editing.errors.filter((e) => !e.pointer.startsWith('/changes/') && e.pointer !== '/why'));
  const why = $derived(editing.errors.find((e) => e.pointer === '/why'));
</script>

<FooterSheet label={t.changes(editing.count)} tone={editing.errors.length > 0 ? 'rust' : 'sea'}>
  <div class="min-w-0 flex-1 basis-56">
    <p class="font-semibold">{t.changes(editing.count)}</p>
    <ul class="text-soft max-h-24 overflow-y-auto text-xs">
      {#each lines as line (line.key)}
        <li>
          <button type="button" class="text-left hover:underline" onclick={() => focusField(line.key)}>{line.label}</button>
          <bdi>{line.old}</bdi> → <bdi class="text-ink">{line.now}</bdi>
          {#if line.error}<strong class="text-rust">{line.error}</strong>{/if}
        </li>
      {/each}
    </ul>
    {#if asks && route.data && route.data.steps.length > 0}
      <p class="text-ochre text-xs font-semibold" role="status">{t.agreeing(route.data.steps.map((s) => s.who))}</p>
      {#if route.data.direct.length > 0}
        <p class="text-soft text-xs">{t.atOnce(route.data.direct.map((d) => fieldAt(record, d)?.label[text.language] ?? d))}</p>
      {/if}
    {/if}
    {#each otherErrors as entry (entry.pointer)}<p role="alert" class="text-rust">{text.problem(entry)}</p>{/each}
  </div>
  <fieldset class="flex min-w-0 flex-wrap items-end gap-x-4 gap-y-1">
    <legend class="float-left w-full pb-1 text-xs {editing.asking ? 'text-ochre font-semibold' : 'text-soft'}" aria-live="polite"
      >{editing.asking ? t.sayHow : t.how}</legend
    >
    <div class="flex pb-4" bind:this={choice}>
      {#each ways as way, i (way.label)}
        <button
          type="button"
          aria-pressed={way.on}
          class="border-ink min-h-8 border px-3 text-xs font-semibold {i === 0 ? 'rounded-l' : 'rounded-r border-l-0'} {way.on
            ? 'bg-ink text-paper'
            : ''}"
          onclick={way.take}>{way.label}</button
        >
      {/each}
    </div>
    {#if editing.from !== null}
      <div class="w-36" bind:this={day}><DateField id="change-from" label={t.fromDate} bind:value={editing.from} /></div>
    {/if}
    <div class={why ? 'w-72' : 'w-44'}>
      <TextField
        id="change-why"
        label={asks ? t.whyAsked : t.why}
        bind:value={editing.why}
        error={why && editing.why.trim() === '' ? text.problem(why) : undefined}
        maxlength={500}
      />
    </div>
  </fieldset>
  <div class="flex gap-3">
    <Button onclick={() => editing.discard()}>{t.discard}</Button>
    <Button look="primary" key="Ctrl+s" disabled={editing.busy} onclick={act}>{asks ? t.ask : t.save}</Button>
  </div>
</FooterSheet>

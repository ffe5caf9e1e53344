<script lang="ts">
  import { again } from '$lib/api/again';
  import { api, ApiProblem, data, type Api } from '$lib/api/client';
  import { hireKeys } from '$lib/hires/queries';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Line from '$lib/ui/Line.svelte';
  import Picker from '$lib/ui/Picker.svelte';
  import { settled } from '$lib/ui/settled.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { done, failed } from '$lib/ui/toast';
  import { createMutation, createQuery, keepPreviousData, useQueryClient } from '@tanstack/svelte-query';
  import { untrack } from 'svelte';
  import FieldList from './FieldList.svelte';
  import MailPreview from './MailPreview.svelte';
  import { mailKeys } from './queries';
  import { words } from './words';

  /** The text of a message, with what it comes to for a hire beside it. */
  let { kind, one }: { kind: Api['MailKindResponse']; one: Api['MailTextResponse'] } = $props();
  const client = useQueryClient();
  const w = $derived(words().texts);
  const typed = $state(untrack(() => ({ ...one.text })));
  // What the user saw: whoever saved meanwhile is not overwritten.
  let seen = $state(untrack(() => one.version));
  let hire = $state('');
  let problem = $state<unknown>();
  let last = $state<HTMLTextAreaElement | HTMLInputElement>();
  const asked = settled(() => ({ ...typed, hire: hire === '' ? null : hire }));
  const path = $derived({ kind: kind.key, language: one.language });
  const hires = createQuery(() => ({ queryKey: hireKeys.of('arrival'), queryFn: () => data(api.GET('/api/arrivals')) }));
  const preview = createQuery(() => ({
    queryKey: mailKeys.preview(path.kind, path.language, asked.current),
    queryFn: () => data(api.POST('/api/mail-texts/{kind}/{language}/shown', { params: { path }, body: asked.current })),
    placeholderData: keepPreviousData,
    retry: false
  }));
  const wrong = $derived(problem ?? preview.error);
  const error = (part: string) =>
    wrong instanceof ApiProblem ? text.problem(wrong.errors.find((e) => e.pointer === `/${part}`)) : undefined;
  const isShipped = $derived((['subject', 'text', 'html'] as const).every((p) => typed[p] === one.shipped[p]));

  function insert(liquid: string) {
    const field = last ?? (document.getElementById('mail-text') as HTMLTextAreaElement);
    // As if it were typed: it can be taken back with the browser's own undo.
    field.setRangeText(liquid, field.selectionStart ?? 0, field.selectionEnd ?? 0, 'end');
    field.dispatchEvent(new Event('input', { bubbles: true }));
    field.focus();
  }
  const save = createMutation(() => ({
    mutationFn: (shipped: boolean) =>
      data(api.PUT('/api/mail-texts/{kind}/{language}', { params: { path }, body: { ...typed, seen, isShipped: shipped } })),
    onMutate: () => (problem = undefined),
    onSuccess: (_, shipped) => {
      if (shipped) Object.assign(typed, one.shipped);
      done(w.saved);
    },
    onError: (e) => {
      problem = e;
      if (!(e instanceof ApiProblem && e.errors.length > 0)) failed(text.failure(e));
    },
    onSettled: async (_, e) => {
      await again(client, mailKeys.texts);
      if (!e) seen = one.version;
    }
  }));
</script>

<div class="border-ink mt-2 grid gap-x-8 gap-y-4 border-t pt-2 lg:grid-cols-2">
  <form
    aria-label={w.text}
    onsubmit={(e) => {
      e.preventDefault();
      save.mutate(false);
    }}
    onfocusin={(e) => {
      if (e.target instanceof HTMLTextAreaElement || e.target instanceof HTMLInputElement) last = e.target;
    }}
  >
    <TextField id="mail-subject" label={w.subject} bind:value={typed.subject} error={error('subject')} />
    {#each [{ part: 'text', label: w.plain, rows: 10 }, { part: 'html', label: w.html, rows: 12 }] as const as area (area.part)}
      <Line id="mail-{area.part}" label={area.label} error={error(area.part)}>
        <textarea
          id="mail-{area.part}"
          rows={area.rows}
          spellcheck="false"
          class="w-full bg-transparent px-0.5 py-1 font-mono text-xs outline-none"
          aria-describedby="mail-{area.part}-note"
          aria-invalid={error(area.part) ? true : undefined}
          bind:value={typed[area.part]}></textarea>
      </Line>
    {/each}
    <FieldList fields={kind.fields} {insert} />
    <div class="flex flex-wrap items-center gap-3 pt-2">
      <Button type="submit" look="primary" disabled={save.isPending}>{w.save}</Button>
      {#if one.version !== null}<Button disabled={save.isPending} onclick={() => save.mutate(true)}>{w.shipped}</Button>{/if}
      <span class="text-soft text-xs"
        >{one.version !== null && one.at ? w.own(one.by ?? '', text.day(one.at.slice(0, 10))) : isShipped ? w.asShipped : w.unsaved}</span
      >
    </div>
  </form>
  <section aria-label={w.looks}>
    <Picker
      id="mail-hire"
      label={w.hire}
      bind:value={hire}
      error={error('hire')}
      choices={(hires.data?.hires ?? []).map((h) => ({ value: h.id, label: `${h.givenName} ${h.familyName}`, detail: text.day(h.start) }))}
    />
    <MailPreview
      shown={preview.data}
      trouble={preview.error && !(preview.error instanceof ApiProblem) ? text.failure(preview.error) : undefined}
    />
  </section>
</div>

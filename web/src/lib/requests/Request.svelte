<script lang="ts">
  import { api, data, type Api } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Picker from '$lib/ui/Picker.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { createQuery } from '@tanstack/svelte-query';
  import type { Deciding } from './deciding.svelte';
  import Effects from './Effects.svelte';
  import { requestKeys } from './queries';
  import { shownRequested } from './shown';
  import { words } from './words';

  /** A request: who asks for what of whom, from when and why; opened, what it comes to, who is asked, what was said, and the word on it. */
  interface Props {
    request: Api['RequestResponse'];
    deciding: Deciding;
    open: boolean;
    onopen: () => void;
  }
  let { request, deciding, open, onopen }: Props = $props();
  const w = $derived(words());
  const day = (instant: string) => text.day(instant.slice(0, 10));
  const others = createQuery(() => ({
    queryKey: requestKeys.others(request.id),
    queryFn: () => data(api.GET('/api/requests/{id}/others', { params: { path: { id: request.id } } })),
    enabled: open && deciding.handing
  }));
  const tone = $derived(
    request.state === 'waiting'
      ? 'text-ochre'
      : request.state === 'refused'
        ? 'text-rust'
        : request.state === 'done'
          ? 'text-sea'
          : 'text-soft'
  );
</script>

<article
  class="border-rule border-b {open ? 'bg-sheet' : ''}"
  aria-label="{request.person}: {request.changes.map((c) => c.label[text.language]).join(', ')}"
>
  <button
    type="button"
    data-id={request.id}
    aria-expanded={open}
    class="block w-full px-3 py-2.5 text-left"
    onclick={onopen}
    onfocus={onopen}
  >
    <span class="flex flex-wrap items-baseline justify-between gap-x-6">
      <strong class="text-base"
        ><bdi>{request.person}</bdi>{#if request.job}<span class="text-soft font-normal">, {request.job}</span>{/if}</strong
      >
      {#if !request.mayDecide}<span class="text-xs font-semibold {tone}">{w.state[request.state]}</span>{/if}
    </span>
    {#each request.changes as change (change.field)}
      <span class="block">
        <span class="text-soft">{change.label[text.language]}</span>
        <bdi>{shownRequested(change, change.old) ?? w.nothing}</bdi> →
        <strong><bdi>{shownRequested(change, change.new) ?? w.nothing}</bdi></strong>
        {#if change.before && !change.now}<span class="text-ochre text-xs"
            >{w.wasFirst(shownRequested(change, change.before) ?? w.nothing)}</span
          >{/if}
        {#if change.now}<span class="text-ochre text-xs font-semibold">{w.nowIs(shownRequested(change, change.now) ?? w.nothing)}</span
          >{/if}
      </span>
    {/each}
    <span class="text-soft block text-xs"
      >{request.from ? w.from(text.day(request.from)) : w.fix} · {request.mayDecide
        ? w.askedBy(request.askedBy, day(request.askedAt))
        : w.askedOn(day(request.askedAt))}</span
    >
  </button>
  {#if open}
    <div class="grid gap-x-8 gap-y-3 px-3 pb-4 md:grid-cols-3">
      <section class="md:col-span-3">
        <p class="max-w-prose"><span class="text-soft">{w.why}:</span> {request.why}</p>
        {#if request.askedAgain && request.state === 'waiting'}<p class="text-ochre font-semibold">{w.askedAgain}</p>{/if}
      </section>
      {#if request.state === 'waiting'}<Effects {request} />{/if}
      <section aria-label={w.steps}>
        <h3 class="font-sans text-sm font-semibold tracking-normal">{w.steps}</h3>
        <ol class="text-sm">
          {#each request.steps as step, i (i)}
            <li>
              <span class="text-soft">{step.label?.[text.language] ?? w.whoeverMay}:</span>
              {#if step.agreedBy && step.agreedAt}<span class="text-sea font-semibold">{w.agreed(step.agreedBy, day(step.agreedAt))}</span>
              {:else if request.state === 'waiting'}{step.who.length > 0 ? w.or(step.who) : w.nobody}
              {:else}–{/if}
            </li>
          {/each}
        </ol>
      </section>
      {#if request.said.some((s) => s.what !== 'request.asked')}
        <section aria-label={w.said}>
          <h3 class="font-sans text-sm font-semibold tracking-normal">{w.said}</h3>
          <ul class="text-sm">
            {#each request.said as s, i (i)}
              {#if s.what !== 'request.asked'}
                <li>
                  <strong>{s.by}</strong>
                  <span class="text-soft">{w.what[s.what] ?? s.what}, {day(s.at)}{s.words ? ':' : ''}</span>
                  {s.words ?? ''}
                </li>
              {/if}
            {/each}
          </ul>
        </section>
      {/if}
      {#if request.mayDecide || request.mayWithdraw}
        <div class="border-rule flex flex-wrap items-end gap-3 border-t pt-2 md:col-span-3">
          {#if deciding.handing}
            <div class="w-56">
              <Picker
                id="hand-to"
                label={w.handTo}
                value={deciding.to}
                choices={(others.data ?? []).map((o) => ({ value: o.account, label: o.name }))}
                error={deciding.error('/to')}
                onchange={(v) => (deciding.to = v)}
              />
            </div>
          {/if}
          <div class="min-w-56 flex-1">
            <TextField
              id="request-comment"
              label={deciding.refusing ? w.commentWhy : w.comment}
              bind:value={deciding.comment}
              maxlength={500}
              error={deciding.error('/comment')}
            />
          </div>
          <div class="flex flex-wrap gap-3 pb-4">
            {#if request.mayDecide}
              {#if deciding.handing}
                <Button disabled={deciding.busy || !deciding.to} onclick={() => deciding.handOn(request)}>{w.handOn}</Button>
                <Button onclick={() => deciding.forget()}>{text.t.common.cancel}</Button>
              {:else}
                <Button look="primary" key="a" disabled={deciding.busy} onclick={() => deciding.say(request, 'agree')}>{w.agree}</Button>
                <Button look="danger" key="n" disabled={deciding.busy} onclick={() => deciding.say(request, 'refuse')}>{w.refuse}</Button>
                <Button key="h" onclick={() => (deciding.handing = true)}>{w.handOn}</Button>
              {/if}
            {/if}
            {#if deciding.comment.trim() && !deciding.handing}
              <Button disabled={deciding.busy} onclick={() => deciding.say(request, 'comment')}>{w.say}</Button>
            {/if}
            {#if request.mayWithdraw}
              <Button look="danger" disabled={deciding.busy} onclick={() => deciding.say(request, 'withdraw')}>{w.withdraw}</Button>
            {/if}
            <a class="link min-h-8 py-1.5 text-sm" href="/people/{request.employmentId}">{w.open}</a>
          </div>
        </div>
      {/if}
    </div>
  {/if}
</article>

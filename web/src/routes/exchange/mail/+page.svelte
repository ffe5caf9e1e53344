<script lang="ts">
  import { api, data, type Api } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { mailKeys } from '$lib/mail/queries';
  import ReminderSettings from '$lib/mail/ReminderSettings.svelte';
  import { words } from '$lib/mail/words';
  import { text } from '$lib/text/index.svelte';
  import DateField from '$lib/ui/DateField.svelte';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { done, failed } from '$lib/ui/toast';
  import { createMutation, createQuery, keepPreviousData, useQueryClient } from '@tanstack/svelte-query';

  // Whom does Fid write to tomorrow, and did what went out arrive?
  const w = $derived(words());
  const client = useQueryClient();
  let day = $state<string | null>(null);
  const reminders = createQuery(() => ({
    queryKey: mailKeys.on(day),
    queryFn: () => data(api.GET('/api/reminders', { params: { query: day === null ? {} : { on: day } } })),
    placeholderData: keepPreviousData
  }));
  const sent = createQuery(() => ({ queryKey: mailKeys.sent, queryFn: () => data(api.GET('/api/reminders/sent')) }));
  const tone: Record<Api['ReminderKind'], string> = {
    escalation: 'text-rust',
    overdue: 'text-rust',
    due: 'text-ochre',
    before: 'text-soft',
    opened: 'text-sea'
  };
  const settle = createMutation(() => ({
    mutationFn: (of: { id: string; again: boolean }) =>
      data(api.PUT('/api/reminders/sent/{id}', { params: { path: { id: of.id } }, body: { again: of.again } })),
    onSuccess: (_, of) => done(of.again ? w.back.sent : w.back.laid),
    onError: (e) => failed(text.failure(e)),
    onSettled: () => client.invalidateQueries({ queryKey: mailKeys.sent })
  }));
  const back = $derived((sent.data ?? []).filter((m) => m.isBack));
  const stateOf = (m: Api['SentMessage']) => (m.refused !== null ? 'refused' : m.sentAt !== null ? 'sent' : 'waits');
</script>

<svelte:head><title>{w.title} · Fid</title></svelte:head>

{#snippet task(of: Api['RemindedTask'])}
  <span class="font-semibold">{of.name}</span>
  {#if session.may('see hire')}<a class="link" href="/hires/{of.hireId}/checklist">{w.for(of.hire)}</a>{:else}{w.for(of.hire)}{/if}
{/snippet}

{#if !reminders.data}
  <Waiting error={reminders.error} retry={() => reminders.refetch()} />
{:else}
  {@const shown = reminders.data}
  <div class="page pb-8">
    <h1 class="pt-5 text-2xl leading-tight">
      {w.people(shown.messages.length, text.day(shown.on))}
      <span class="text-soft font-sans text-sm font-normal">{w.at(shown.settings.at ?? '')}</span>
    </h1>
    {#if !shown.hasServer}<p class="text-rust py-1 font-semibold">{w.noServer}</p>{/if}
    {#if shown.settings.paused}<p class="text-rust py-1 font-semibold">{w.paused}</p>{/if}
    {#if back.length > 0}
      <section aria-label={w.states.refused} class="border-rust my-2 border-l-4 pl-3">
        <h2 class="text-rust text-base">{w.back.news(back.length)}</h2>
        <ul>
          {#each back as message (message.id)}
            <li class="border-rule flex flex-wrap items-baseline gap-x-4 border-b py-1.5">
              <span class="min-w-0 flex-1"
                ><strong><bdi>{message.name}</bdi></strong> <span class="text-soft">{message.address}</span><br />{message.subject}<br
                /><span class="text-rust text-xs">{message.refused}</span></span
              >
              {#if session.may('see account') && message.canGoAgain}<a class="link text-xs" href="/admin?account={message.accountId}"
                  >{w.back.account}</a
                >{/if}
              {#if message.canGoAgain}<button
                  type="button"
                  class="link text-xs"
                  disabled={settle.isPending}
                  onclick={() => settle.mutate({ id: message.id, again: true })}>{w.back.again}</button
                >{/if}
              <button
                type="button"
                class="link text-xs"
                disabled={settle.isPending}
                onclick={() => settle.mutate({ id: message.id, again: false })}>{w.back.aside}</button
              >
            </li>
          {/each}
        </ul>
      </section>
    {/if}
    <div class="w-full py-2 sm:w-52">
      <DateField id="reminders-on" label={w.day} bind:value={() => day ?? shown.on, (chosen) => (day = chosen)} />
    </div>
    <ul class="border-ink border-t">
      {#each shown.messages as message (message.address)}
        <li class="border-rule grid gap-x-6 border-b py-2 sm:grid-cols-[14rem_minmax(0,1fr)]">
          <p><strong><bdi>{message.name}</bdi></strong><br /><span class="text-soft text-xs">{message.address}</span></p>
          <ul>
            {#each message.lines as line (line.task.hireId + line.task.name + line.kind)}
              <li>
                {@render task(line.task)}
                <span class="text-xs {tone[line.kind]}">{line.kind === 'opened' ? w.kinds.opened : w.days(line.days)}</span>
                {#if line.for}<span class="text-soft text-xs">· {w.of(line.for)}</span>{/if}
              </li>
            {/each}
          </ul>
        </li>
      {/each}
    </ul>
    {#if shown.waiting.length > 0}
      <h2 class="pt-4 text-base">{w.waiting}</h2>
      <ul>
        {#each shown.waiting as one (one.task.hireId + one.task.name + one.owner)}
          <li>{@render task(one.task)} <span class="text-soft text-xs"><bdi>{one.owner}</bdi> {w.why[one.why]}</span></li>
        {/each}
      </ul>
    {/if}
    {#if shown.unownedCount > 0}
      <details class="pt-4">
        <summary class="cursor-pointer font-semibold">{w.unowned(shown.unownedCount)}</summary>
        <p class="text-soft text-xs">{w.unownedWhy}</p>
        <ul>
          {#each shown.unowned as one (one.hireId + one.name)}<li>
              {@render task(one)} <span class="text-soft text-xs">{one.due ? text.day(one.due) : ''}</span>
            </li>{/each}
        </ul>
      </details>
    {/if}

    <h2 class="pt-6 pb-1 text-base">{w.sent}</h2>
    <!-- svelte-ignore a11y_no_noninteractive_tabindex (it scrolls on narrow screens, so it must be reachable) -->
    <div class="overflow-x-auto" tabindex="0" role="region" aria-label={w.sent}>
      <table class="border-ink w-full border-t text-left">
        <thead class="text-soft text-xs">
          <tr
            >{#each w.columns as column (column)}<th class="px-2 py-1.5 font-normal">{column}</th>{/each}</tr
          >
        </thead>
        <tbody>
          {#each sent.data ?? [] as message (message.id)}
            <tr class="border-rule border-t align-top">
              <td class="px-2 py-1.5 whitespace-nowrap">{text.day(message.at.slice(0, 10))}</td>
              <td class="px-2 py-1.5"><bdi>{message.name}</bdi></td>
              <td class="px-2 py-1.5">
                <details>
                  <summary class="cursor-pointer">{message.subject}</summary>
                  <pre class="py-1 font-sans text-xs whitespace-pre-wrap">{message.text}</pre>
                </details>
              </td>
              <td
                class="px-2 py-1.5 {message.refused !== null
                  ? 'text-rust font-semibold'
                  : message.sentAt === null
                    ? 'text-ochre'
                    : 'text-soft'}"
              >
                {w.states[stateOf(message)]}{#if message.refused !== null}: {message.refused}{:else if message.trouble}, {w.tried(
                    message.trouble
                  )}{/if}
              </td>
            </tr>
          {:else}
            <tr><td colspan="4" class="text-soft px-2 py-4">{w.none}</td></tr>
          {/each}
        </tbody>
      </table>
    </div>

    {#if session.may('edit settings')}<div class="pt-6"><ReminderSettings settings={shown.settings} /></div>{/if}
  </div>
{/if}

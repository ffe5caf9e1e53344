<script lang="ts">
  import { dueWords } from '$lib/hires/due';
  import { api, data, type Api } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { again } from '$lib/api/again';
  import { hireKeys } from '$lib/hires/queries';
  import { words } from '$lib/hires/words';
  import { occasionWords } from '$lib/occasions/words';
  import { words as taskWords } from '$lib/tasks/words';
  import { done, failed } from '$lib/ui/toast';
  import { useQueryClient } from '@tanstack/svelte-query';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import DateField from '$lib/ui/DateField.svelte';

  /** Where the hire stands, in a sentence with its proof, and the question what another start would do. */
  interface Props {
    hire: Api['ChecklistResponse'];
    move: (to: string | null) => void;
    end: () => void;
    /** Whether the chain that holds it up is shown, here and in the drawing. */
    proving: boolean;
  }
  let { hire, move, end, proving = $bindable() }: Props = $props();
  const t = $derived(words().checklist);
  const o = $derived(occasionWords(hire.occasion));
  const chase = $derived(hire.holdUp);
  const short = $derived(chase !== null && chase.slack < 0);
  const bad = $derived(!hire.feasible || short);
  // Filled in where there is a better start than the present one; the reader's own question takes its place.
  let typed = $state<string | null>();
  const asked = $derived(typed !== undefined ? typed : hire.feasible ? null : hire.soonestStart);

  const client = useQueryClient();
  const acts = $derived(taskWords().acts);
  async function pause() {
    const paused = !hire.remindersPaused;
    try {
      await data(api.PUT('/api/hires/{id}/reminders', { params: { path: { id: hire.id } }, body: { paused } }));
      done(paused ? acts.pausedAll : acts.resumedAll);
    } catch (e) {
      failed(text.failure(e));
    }
    await again(client, hireKeys.all);
  }
</script>

<div
  class="my-3 flex flex-wrap items-center justify-between gap-x-8 gap-y-2 border-l-4 px-4 py-2 [--faint:var(--soft)] {bad
    ? 'border-rust bg-rust-tint'
    : 'border-sea bg-sea-tint'}"
>
  <div class="min-w-0 flex-1 basis-72">
    {#if bad && chase}
      <p class="text-rust text-base font-semibold">{t.holdsUp(chase.name, -chase.slack)}</p>
      <p class="text-xs">
        {t.readyOn(chase.name, text.day(chase.earliestFinish))}
        {#if !hire.feasible && hire.soonestStart}{o.soonest(text.day(hire.soonestStart))}{/if}
      </p>
    {:else}
      <p class="text-sea text-base font-semibold">{hire.start > hire.today ? t.feasible(text.day(hire.start)) : o.passed}</p>
      {#if chase}<p class="text-xs">{t.latestFirst(chase.name, dueWords(chase))}</p>{/if}
    {/if}
    {#if hire.remindersPaused}<p class="text-xs font-semibold">{acts.allPaused}</p>{/if}
    {#if session.may('edit task')}
      <button type="button" class="link float-right ml-4 text-xs" onclick={pause}
        >{hire.remindersPaused ? acts.resume : acts.pauseAll}</button
      >
    {/if}
    {#if hire.chain.length > 0}
      <button type="button" class="link text-xs" aria-expanded={proving} aria-controls="chain" onclick={() => (proving = !proving)}
        >{proving ? t.whyNot : t.why}</button
      >
      {#if proving}
        <ol id="chain" class="mt-1 list-decimal pl-5 text-xs">
          {#each hire.chain as link (link.key)}
            <li>
              {t.chain.link(link.name, text.day(link.earliestFinish), text.day(link.latestFinish))}
              {link.by === 'task' || link.by === 'gate'
                ? t.chain[link.by](link.nextName ?? '')
                : link.by === 'dayOne'
                  ? o.beforeItInFull
                  : t.chain[link.by]}
            </li>
          {/each}
        </ol>
      {/if}
    {/if}
  </div>
  {#if session.may('edit hire')}
    <div class="flex flex-wrap items-end gap-3">
      <div class="w-44">
        <DateField
          id="what-if"
          label={o.whatIf}
          value={asked}
          onchange={(to) => {
            typed = to;
            if (to) move(to);
          }}
        />
      </div>
      <div class="flex gap-3 pb-4">
        <Button onclick={() => move(asked)}>{o.move.open}</Button><Button onclick={end}>{o.end.open}</Button>
      </div>
    </div>
  {/if}
</div>

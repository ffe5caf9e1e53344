<script lang="ts">
  import { goto } from '$app/navigation';
  import { api, data, type Api } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { TaskActs } from '$lib/tasks/taskActs.svelte';
  import { occasionWords } from '$lib/occasions/words';
  import { words } from '$lib/tasks/words';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import FooterSheet from '$lib/ui/FooterSheet.svelte';
  import { name, type Row } from './arrivals';

  /** The hire selected in Arrivals: where it stands, why, and what can be done. */
  interface Props {
    occasion: Api['Occasion'];
    row: Row;
    checklist: string;
    record: string;
    moveStart: () => void;
  }
  let { occasion, row, checklist, record, moveStart }: Props = $props();
  const o = $derived(occasionWords(occasion));
  const t = $derived(text.t.arrivals);
  const w = $derived(words().acts);
  const acts = new TaskActs();
  const chase = $derived(row.holdUp);
  const remind = (key: string, task: string) =>
    acts.doOrSay(
      () => data(api.POST('/api/tasks/reminders', { body: { tasks: [{ hire: row.id, key }] } })),
      () => w.reminded(task)
    );
</script>

<FooterSheet label={name(row)} tone={row.feasible ? 'sea' : 'rust'}>
  <div class="min-w-40">
    <p class="text-base font-semibold"><bdi>{name(row)}</bdi></p>
    <p class="text-soft text-xs">
      {o.inTimeOf(row.readiness.done, row.readiness.of)} · {row.start > session.today ? o.coming : o.past}
      {text.day(row.start)}
    </p>
  </div>
  <div class="min-w-0 flex-1 basis-64">
    {#if !row.feasible}
      {#if row.holdUp}<p class="text-rust font-semibold">{t.cannotBefore(row.holdUp.name, text.day(row.holdUp.earliestFinish))}</p>{/if}
      <p class="text-soft text-xs">
        {#if row.soonestStart}{o.soonestDay} <strong class="text-ink">{text.day(row.soonestStart)}</strong>{:else}{o.noSoonest}{/if}
      </p>
    {:else if row.holdUp}
      <p class="font-semibold">{row.holdUp.name}</p>
      <p class="text-soft text-xs">
        {text.owner(row.holdUp.owner, row.holdUp.ownerName)} · {row.holdUp.beforeKnown
          ? text.t.state.beforeKnown
          : row.holdUp.slack < 0
            ? t.late(-row.holdUp.slack)
            : t.slack(row.holdUp.slack)}
      </p>
    {/if}
  </div>
  <div class="flex flex-wrap gap-3">
    {#if chase && session.may('edit task')}<Button disabled={acts.busy} onclick={() => remind(chase.key, chase.name)}
        >{w.remind(text.owner(chase.owner, chase.ownerName))}</Button
      >{/if}
    {#if session.may('edit hire')}<Button onclick={moveStart}>{o.move.open}</Button>{/if}
    {#if session.may('see record')}<Button key="e" onclick={() => goto(record)}>{t.openRecord}</Button>{/if}
    <Button look="primary" key="Enter" onclick={() => goto(checklist)}>{t.openChecklist}</Button>
  </div>
</FooterSheet>

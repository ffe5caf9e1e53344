<script lang="ts">
  import { again } from '$lib/api/again';
  import { api, data, type Api } from '$lib/api/client';
  import { hireKeys } from '$lib/hires/queries';
  import { recordKeys } from '$lib/record/queries';
  import Button from '$lib/ui/Button.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { done } from '$lib/ui/toast';
  import { useQueryClient } from '@tanstack/svelte-query';
  import { FormProblems } from './problems.svelte';
  import { words } from './words';

  /** Need the next stage wait for the rest of this one; or is there more to do in one that has passed? */
  interface Props {
    hire: string;
    stage: Api['StageResponse'];
  }
  let { hire, stage }: Props = $props();
  const client = useQueryClient();
  const w = $derived(words().gate);
  const problems = new FormProblems();
  let open = $state(false);
  let why = $state('');
  let busy = $state(false);
  const passed = $derived(stage.state === 'passed');

  async function save(event: SubmitEvent) {
    event.preventDefault();
    busy = true;
    const request = { params: { path: { id: hire, key: stage.key } }, body: { why } };
    const wasPassed = passed;
    const name = stage.name;
    if (
      await problems.run(
        async () =>
          void (await data(
            wasPassed ? api.PUT('/api/hires/{id}/stages/{key}/reopened', request) : api.PUT('/api/hires/{id}/stages/{key}/passed', request)
          )),
        ['why']
      )
    ) {
      open = false;
      why = '';
      done(wasPassed ? w.reopened(name) : w.passed(name));
    }
    busy = false;
    await again(client, hireKeys.all, hireKeys.arrivals, recordKeys.all);
  }
</script>

<button type="button" class="link font-sans text-xs font-normal tracking-normal" onclick={() => (open = true)}
  >{passed ? w.reopen : w.pass}</button
>

<Dialog bind:open title={passed ? w.reopenTitle(stage.name) : w.passTitle(stage.name)} focus="#gate-why">
  <form class="space-y-3 px-5 pt-3 pb-5" onsubmit={save}>
    <p class="text-soft text-xs">{passed ? w.reopenMeans : w.passMeans(stage.of - stage.done)}</p>
    <TextField id="gate-why" label={w.why} bind:value={why} maxlength={500} error={problems.at('why')} />
    <div class="flex justify-end gap-3">
      <Button onclick={() => (open = false)}>{w.cancel}</Button>
      <Button type="submit" look="primary" disabled={busy}>{passed ? w.reopenAct : w.passAct}</Button>
    </div>
  </form>
</Dialog>

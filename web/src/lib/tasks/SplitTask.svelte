<script lang="ts">
  import { api, data, type Api } from '$lib/api/client';
  import Button from '$lib/ui/Button.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { untrack } from 'svelte';
  import OwnerField from './OwnerField.svelte';
  import { FormProblems } from './problems.svelte';
  import type { TaskActs } from './taskActs.svelte';
  import { wholeDays } from './wholeDays';
  import { words } from './words';

  /** Where is it cut, and who does the second part? */
  interface Props {
    open: boolean;
    hire: string;
    task: Api['TaskResponse'];
    acts: TaskActs;
  }
  let { open = $bindable(), hire, task, acts }: Props = $props();
  const w = $derived(words().acts);
  const problems = new FormProblems();
  let first = $state(untrack(() => String(Math.max(1, Math.floor(task.work / 2)))));
  let name = $state('');
  let owner = $state(untrack(() => task.owner));
  const days = $derived(wholeDays(first));

  async function save(event: SubmitEvent) {
    event.preventDefault();
    if (days === undefined) return;
    const send = () =>
      acts.do(
        [
          () =>
            data(
              api.POST('/api/hires/{id}/tasks/{key}/parts', {
                params: { path: { id: hire, key: task.key } },
                body: { work: days, name, owner }
              })
            )
        ],
        () => w.splitDone(task.name)
      );
    if (await problems.run(send, ['work', 'name', 'owner'])) open = false;
  }
</script>

<Dialog bind:open title={w.splitTitle(task.name)} focus="#split-first">
  <form class="px-5 pt-3 pb-4" onsubmit={save}>
    <p class="text-soft text-xs">{w.splitAbout(task.work)}</p>
    <div class="grid gap-x-6 gap-y-1 pt-2 sm:grid-cols-2">
      <TextField
        id="split-first"
        label={w.first}
        bind:value={first}
        inputmode="numeric"
        error={days === undefined ? w.workWrong : problems.at('work')}
      />
      <TextField id="split-name" label={w.second} bind:value={name} maxlength={200} error={problems.at('name')} />
      <OwnerField
        id="split-owner"
        label={w.secondOwner}
        value={owner}
        shown={owner === task.owner ? (task.ownerName ?? '') : ''}
        error={problems.at('owner')}
        onchange={(v) => (owner = v)}
      />
    </div>
    <div class="mt-3 flex flex-wrap justify-end gap-3">
      <Button onclick={() => (open = false)}>{w.cancel}</Button>
      <Button type="submit" look="primary" disabled={acts.busy}>{w.split}</Button>
    </div>
  </form>
</Dialog>

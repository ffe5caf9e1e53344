<script lang="ts">
  import { api, data, type Api } from '$lib/api/client';
  import Button from '$lib/ui/Button.svelte';
  import DateField from '$lib/ui/DateField.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import Picker from '$lib/ui/Picker.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import OwnerField from './OwnerField.svelte';
  import { FormProblems } from './problems.svelte';
  import type { TaskActs } from './taskActs.svelte';
  import { wholeDays } from './wholeDays';
  import { words } from './words';

  /** What else is to be done for this newcomer, by whom, and what waits for it? */
  interface Props {
    open: boolean;
    hire: string;
    /** The task it comes after. */
    task: Api['TaskResponse'];
    tasks: Api['TaskResponse'][];
    acts: TaskActs;
  }
  let { open = $bindable(), hire, task, tasks, acts }: Props = $props();
  const w = $derived(words().acts);
  const problems = new FormProblems();
  let name = $state('');
  let owner = $state('coordinator');
  let work = $state('1');
  let day = $state<string | null>(null);
  let before = $state('');
  let required = $state(true);
  let dayOne = $state(false);
  const days = $derived(wholeDays(work));
  const choices = $derived([
    { value: '', label: w.nothingAfter },
    ...tasks.filter((t) => t.key !== task.key && !t.done && !t.skippedWhy).map((t) => ({ value: t.key, label: t.name }))
  ]);

  async function save(event: SubmitEvent) {
    event.preventDefault();
    if (days === undefined) return;
    const send = () =>
      acts.do(
        [
          () =>
            data(
              api.POST('/api/hires/{id}/tasks', {
                params: { path: { id: hire } },
                body: {
                  name,
                  stage: task.stage,
                  owner,
                  work: days,
                  day,
                  after: [task.key],
                  before: before ? [before] : [],
                  required,
                  dayOne,
                  note: null
                }
              })
            )
        ],
        () => w.added(name)
      );
    if (await problems.run(send, ['name', 'owner', 'work', 'day', 'before'])) open = false;
  }
</script>

<Dialog bind:open title={w.addTitle(task.name)} focus="#add-name">
  <form class="px-5 pt-3 pb-4" onsubmit={save}>
    <div class="grid gap-x-6 gap-y-1 sm:grid-cols-2">
      <TextField id="add-name" label={w.name} bind:value={name} maxlength={200} error={problems.at('name')} />
      <OwnerField id="add-owner" label={w.owner} value={owner} shown="" error={problems.at('owner')} onchange={(v) => (owner = v)} />
      <TextField
        id="add-work"
        label={w.work}
        bind:value={work}
        inputmode="numeric"
        error={days === undefined ? w.workWrong : problems.at('work')}
      />
      <DateField id="add-day" label={w.day} bind:value={day} error={problems.at('day')} />
      <Picker id="add-before" label={w.before} bind:value={before} {choices} error={problems.at('before')} />
    </div>
    <div class="flex flex-wrap gap-x-6 gap-y-1 pt-1">
      <label class="flex items-center gap-2"><input type="checkbox" bind:checked={required} />{w.required}</label>
      <label class="flex items-center gap-2"><input type="checkbox" bind:checked={dayOne} />{w.dayOne}</label>
    </div>
    <div class="mt-3 flex flex-wrap justify-end gap-3">
      <Button onclick={() => (open = false)}>{w.cancel}</Button>
      <Button type="submit" look="primary" disabled={acts.busy}>{w.add.replace('…', '')}</Button>
    </div>
  </form>
</Dialog>

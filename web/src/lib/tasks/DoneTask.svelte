<script lang="ts">
  import { api, data } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { words as hireWords } from '$lib/hires/words';
  import Button from '$lib/ui/Button.svelte';
  import DateField from '$lib/ui/DateField.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import PersonPicker from '$lib/ui/PersonPicker.svelte';
  import { untrack } from 'svelte';
  import { FormProblems } from './problems.svelte';
  import type { TaskActs } from './taskActs.svelte';
  import { words } from './words';

  /** On which day was it done, and by whom? */
  interface Props {
    open: boolean;
    hire: string;
    task: { key: string; name: string };
    acts: TaskActs;
  }
  let { open = $bindable(), hire, task, acts }: Props = $props();
  const w = $derived(words().acts);
  const problems = new FormProblems();
  let on = $state<string | null>(untrack(() => session.today));
  let by = $state('');
  let byName = $state('');

  async function save(event: SubmitEvent) {
    event.preventDefault();
    const send = () =>
      acts.do([() => data(api.POST('/api/tasks/done', { body: { tasks: [{ hire, key: task.key }], done: on, by: by || null } }))], () =>
        hireWords().checklist.ticked(task.name)
      );
    if (await problems.run(send, ['done', 'by'])) open = false;
  }
</script>

<Dialog bind:open title={w.doneTitle(task.name)} focus="#done-on">
  <form class="px-5 pt-3 pb-4" onsubmit={save}>
    <div class="grid gap-x-6 gap-y-1 sm:grid-cols-2">
      <DateField id="done-on" label={w.on} bind:value={on} error={problems.at('done')} />
      <PersonPicker
        id="done-by"
        label={w.by}
        value={by}
        shown={byName}
        note={by ? undefined : w.byYou}
        error={problems.at('by')}
        onchange={(value, name) => ([by, byName] = [value, name])}
      />
    </div>
    <div class="mt-3 flex flex-wrap justify-end gap-3">
      <Button onclick={() => (open = false)}>{w.cancel}</Button>
      <Button type="submit" look="primary" disabled={acts.busy}>{hireWords().checklist.act}</Button>
    </div>
  </form>
</Dialog>

import { api, data, type Api } from '$lib/api/client';
import { payCheckKeys } from '$lib/payCheck/queries';
import { taskKeys } from '$lib/tasks/queries';
import { text } from '$lib/text/index.svelte';
import { done, failed } from '$lib/ui/toast';
import { useQueryClient } from '@tanstack/svelte-query';
import { words } from './words';

type Task = Api['RunTaskResponse'];
type State = Api['RunTaskState'];

/** How a task of a pay run stands, as it is told to the server. */
export const stateOf = (task: Task): State => (task.state === 'done' ? 'done' : task.state === 'skipped' ? 'skipped' : 'open');

/** Settles tasks of pay runs, and begins their checklists and takes them away; each act offers to be taken back. */
export class Settling {
  busy = $state(false);
  readonly #client = useQueryClient();

  settle(checklist: string, task: Task, to: State, why: string | null = null): Promise<boolean> {
    const before = { state: stateOf(task), why: task.skippedWhy };
    const w = words();
    const said = to === 'done' ? w.isDone : to === 'skipped' ? w.isSkipped : w.isOpen;
    return this.#act(
      () =>
        data(
          api.POST('/api/pay-check/checklists/{id}/tasks/{key}', { params: { path: { id: checklist, key: task.key } }, body: { to, why } })
        ),
      said(task.name),
      () => void this.settle(checklist, { ...task, state: to === 'open' ? 'ready' : to }, before.state, before.why)
    );
  }

  begin(run: { payGroup: string; period: string }, template: string): Promise<boolean> {
    return this.#act(() => data(api.POST('/api/pay-check/checklists', { body: { ...run, template } })), words().begun);
  }

  takeAway(checklist: string): Promise<boolean> {
    return this.#act(() => data(api.DELETE('/api/pay-check/checklists/{id}', { params: { path: { id: checklist } } })), words().takenAway);
  }

  async #act(send: () => Promise<unknown>, said: string, undo?: () => void): Promise<boolean> {
    if (this.busy) return false;
    this.busy = true;
    let isDone = false;
    try {
      await send();
      isDone = true;
      done(said, undo && { label: words().undo, run: undo });
    } catch (e) {
      failed(text.failure(e));
    }
    await Promise.all([payCheckKeys.all, taskKeys.mine].map((queryKey) => this.#client.invalidateQueries({ queryKey })));
    this.busy = false;
    return isDone;
  }
}

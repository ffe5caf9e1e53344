import { api, data, type Api } from '$lib/api/client';
import { session } from '$lib/api/session.svelte';
import { text } from '$lib/text/index.svelte';
import { done, failed } from '$lib/ui/toast';
import { useQueryClient } from '@tanstack/svelte-query';

type Task = Pick<Api['TaskResponse'], 'key' | 'name' | 'owner'>;

/** Ticks tasks off at once, and offers to take it back. */
export class Ticking {
  readonly #client = useQueryClient();
  #busy = false;

  constructor(readonly hire: () => string) {}

  /** Whether this person may tick the task here; owners of other tasks do so in My tasks. */
  may = (task: Task) => session.coordinates || (task.owner === 'manager' && session.has('manager'));

  tick = (task: Task) =>
    this.#act(
      () => data(api.PUT('/api/hires/{id}/tasks/{key}/done', { params: this.#at(task), body: { done: null } })),
      text.t.checklist.ticked(task.name),
      () => this.untick(task)
    );

  untick = (task: Task) =>
    this.#act(() => data(api.DELETE('/api/hires/{id}/tasks/{key}/done', { params: this.#at(task) })), text.t.checklist.unticked(task.name));

  skip = (task: Task, why: string) =>
    this.#act(
      () => data(api.PUT('/api/hires/{id}/tasks/{key}/skipped', { params: this.#at(task), body: { why } })),
      text.t.checklist.skipped(task.name),
      () => this.unskip(task)
    );

  unskip = (task: Task) =>
    this.#act(
      () => data(api.DELETE('/api/hires/{id}/tasks/{key}/skipped', { params: this.#at(task) })),
      text.t.checklist.unticked(task.name)
    );

  #at = (task: Task) => ({ path: { id: this.hire(), key: task.key } });

  async #act(call: () => Promise<unknown>, said: string, back?: () => void) {
    if (this.#busy) return;
    this.#busy = true;
    try {
      await call();
      done(said, back && { label: text.t.checklist.undo, run: back });
    } catch (e) {
      failed(text.failure(e));
    } finally {
      this.#busy = false;
      // The live line tells as well; this keeps the screen right where that is down.
      void this.#client.invalidateQueries({ predicate: (q) => ['hire', 'arrivals', 'tasks'].includes(String(q.queryKey[0])) });
    }
  }
}

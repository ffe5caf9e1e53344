import { api, data, type Api } from '$lib/api/client';
import { text } from '$lib/text/index.svelte';
import { done, failed } from '$lib/ui/toast';
import { useQueryClient } from '@tanstack/svelte-query';
import { words } from '$lib/hires/words';
import { again } from '$lib/api/again';
import { hireKeys } from '$lib/hires/queries';
import { taskKeys } from './queries';

type Task = Pick<Api['TaskResponse'], 'key' | 'name' | 'owner'>;

const at = (hire: string, task: Task) => ({ path: { id: hire, key: task.key } });

/** Ticks tasks off at once, and offers to take it back. */
export class Ticking {
  readonly #client = useQueryClient();
  #busy = false;

  constructor(readonly hire: () => string) {}

  // The hire is held on to: by the time a reader takes something back, another may be on the screen.
  tick = (task: Task, hire = this.hire()) =>
    this.#act(
      () => data(api.PUT('/api/hires/{id}/tasks/{key}/done', { params: at(hire, task), body: { done: null } })),
      words().checklist.ticked(task.name),
      () => this.untick(task, hire)
    );

  untick = (task: Task, hire = this.hire()) =>
    this.#act(
      () => data(api.DELETE('/api/hires/{id}/tasks/{key}/done', { params: at(hire, task) })),
      words().checklist.unticked(task.name)
    );

  skip = (task: Task, why: string, hire = this.hire()) =>
    this.#act(
      () => data(api.PUT('/api/hires/{id}/tasks/{key}/skipped', { params: at(hire, task), body: { why } })),
      words().checklist.skipped(task.name),
      () => this.unskip(task, hire)
    );

  unskip = (task: Task, hire = this.hire()) =>
    this.#act(
      () => data(api.DELETE('/api/hires/{id}/tasks/{key}/skipped', { params: at(hire, task) })),
      words().checklist.unticked(task.name)
    );

  async #act(call: () => Promise<unknown>, said: string, back?: () => void) {
    if (this.#busy) return;
    this.#busy = true;
    try {
      await call();
      done(said, back && { label: words().checklist.undo, run: back });
    } catch (e) {
      failed(text.failure(e));
    } finally {
      this.#busy = false;
      // The live line tells as well; this keeps the screen right where that is down.
      void again(this.#client, hireKeys.all, hireKeys.arrivals, taskKeys.mine);
    }
  }
}

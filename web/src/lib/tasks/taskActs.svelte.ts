import { again } from '$lib/api/again';
import { api, data, type Api } from '$lib/api/client';
import { hireKeys } from '$lib/hires/queries';
import { text } from '$lib/text/index.svelte';
import { done, failed } from '$lib/ui/toast';
import { useQueryClient } from '@tanstack/svelte-query';
import { taskKeys } from './queries';
import { words } from './words';

type Changed = Api['TasksChangedResponse'];

/** Why some tasks stay as they were, each reason once. */
const whyOf = (left: Changed['left']) =>
  left
    .map((l) => text.problem({ pointer: '', code: l.code, detail: l.message }))
    .filter((why, i, all) => all.indexOf(why) === i)
    .join(' ');

/** Does things to tasks, one or many at once, says what came of it, and offers to take it back. */
export class TaskActs {
  readonly #client = useQueryClient();
  busy = $state(false);

  /** Does several things as one: where one is refused, what was done before it is taken back. A refusal is thrown.
   * @param said what to say, given how many tasks were changed */
  async do(acts: (() => Promise<Changed>)[], said: (changed: number) => string): Promise<void> {
    if (this.busy) return;
    this.busy = true;
    const changes: string[] = [];
    try {
      const left: Changed['left'] = [];
      for (const act of acts) {
        const answer = await act();
        changes.push(...answer.changes);
        left.push(...answer.left);
      }
      done(said(changes.length), changes.length > 0 ? { label: words().acts.undo, run: () => void this.takeBack(changes) } : undefined);
      if (left.length > 0) failed(words().acts.left(left.length, whyOf(left)));
    } catch (e) {
      if (changes.length > 0) await data(api.POST('/api/tasks/taken-back', { body: { changes } }));
      throw e;
    } finally {
      this.busy = false;
      this.#refresh();
    }
  }

  /** The same where no form is there to show a refusal. */
  async doOrSay(act: () => Promise<Changed>, said: (changed: number) => string): Promise<void> {
    try {
      await this.do([act], said);
    } catch (e) {
      failed(text.failure(e));
    }
  }

  async takeBack(changes: string[]): Promise<void> {
    try {
      await data(api.POST('/api/tasks/taken-back', { body: { changes } }));
      done(words().acts.takenBack);
    } catch (e) {
      failed(text.failure(e));
    } finally {
      this.#refresh();
    }
  }

  #refresh() {
    void again(this.#client, hireKeys.all, hireKeys.arrivals, taskKeys.mine);
  }
}

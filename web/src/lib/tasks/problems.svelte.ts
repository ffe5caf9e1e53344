import { ApiProblem } from '$lib/api/client';
import { text } from '$lib/text/index.svelte';
import { failed } from '$lib/ui/toast';

/** What a form was told is wrong with it. */
export class FormProblems {
  #problem = $state<unknown>();

  /** What is wrong with a part of it. */
  at = (part: string) => (this.#problem instanceof ApiProblem ? text.problem(this.#problem.at(`/${part}`)) : undefined);

  /** Whether everything that is wrong is said at one of some parts. */
  #covers = (problem: unknown, parts: string[]) =>
    problem instanceof ApiProblem && problem.errors.length > 0 && problem.errors.every((e) => parts.includes(e.pointer.slice(1)));

  /** Runs what is sent; tells at the parts what is wrong with them, and else in a message. Answers whether it was done. */
  async run(send: () => Promise<void>, parts: string[]): Promise<boolean> {
    this.#problem = undefined;
    try {
      await send();
      return true;
    } catch (e) {
      this.#problem = e;
      if (!this.#covers(e, parts)) failed(e instanceof ApiProblem && e.errors[0] ? (text.problem(e.errors[0]) ?? '') : text.failure(e));
      return false;
    }
  }
}

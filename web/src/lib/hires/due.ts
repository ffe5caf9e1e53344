import { text } from '$lib/text/index.svelte';

interface Dated {
  due: string | null;
  latestFinish: string | null;
}

/** The one date that a task has wherever it is named: its own due date, else the day by which others need it; null where it has neither. */
export const dueOf = (task: Dated) => task.due ?? task.latestFinish;

/** That date in words, saying which of the two it is; empty where there is none. */
export const dueWords = (task: Dated) =>
  task.due ? text.t.arrivals.due(text.day(task.due)) : task.latestFinish ? text.t.arrivals.finish(text.day(task.latestFinish)) : '';

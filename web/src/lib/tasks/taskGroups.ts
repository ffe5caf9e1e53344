import type { Api } from '$lib/api/client';
import { dueOf } from '$lib/hires/due';

export type Task = Api['MyTask'];
export type Grouping = 'date' | 'hire' | 'kind';

export interface TaskGroup {
  id: string;
  /** What the group is of; null for those by date, which the page names. */
  name: string | null;
  tasks: Task[];
}

export const taskId = (task: Task) => `${task.hireId}/${task.key}`;

/** By which tasks of different newcomers are the same work: five lockers to fit out. */
const kindOf = (task: Task) => `${task.key} ${task.name}`;

const dateOf = (task: Task) => dueOf(task) ?? '9999-12-31';

/** What can be done now in groups, the one with the most urgent task first; by date it is one. */
export function groupTasks(tasks: Task[], by: Grouping): TaskGroup[] {
  if (by === 'date') return [{ id: 'now', name: null, tasks }];
  const groups = new Map<string, TaskGroup>();
  for (const task of tasks) {
    const key = by === 'hire' ? task.hireId : kindOf(task);
    const group = groups.get(key) ?? { id: `${by} ${key}`, name: by === 'hire' ? task.hire : task.name, tasks: [] };
    group.tasks.push(task);
    groups.set(key, group);
  }
  return [...groups.values()].sort((a, b) => dateOf(a.tasks[0]!).localeCompare(dateOf(b.tasks[0]!)));
}

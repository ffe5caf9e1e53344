import type { Api } from '$lib/api/client';
import { dueOf } from '$lib/hires/due';

type Task = Api['TaskResponse'];

/** How a checklist is looked at. */
export type View = 'stage' | 'owner' | 'date';

const isOpen = (task: Task) => !task.done && !task.skippedWhy;
const dayOf = (task: Task) => task.done ?? dueOf(task) ?? '9999-12-31';

/** The tasks of a checklist by who does them, each group in the checklist's order; or all by their dates, what is done last. */
export function groupChecklist(tasks: Task[], by: 'owner' | 'date'): { id: string; tasks: Task[] }[] {
  if (by === 'date')
    return [{ id: 'date', tasks: [...tasks].sort((a, b) => Number(isOpen(b)) - Number(isOpen(a)) || dayOf(a).localeCompare(dayOf(b))) }];
  const owners = new Map<string, Task[]>();
  for (const task of tasks) owners.set(task.owner, [...(owners.get(task.owner) ?? []), task]);
  return [...owners].map(([id, own]) => ({ id, tasks: own }));
}

import { expect, test } from 'vitest';
import type { Task } from './taskGroups';
import { TaskList } from './taskList.svelte';

const task = (hireId: string, key: string, due: string | null, more: Partial<Task> = {}) =>
  ({
    hireId,
    hire: `Hire ${hireId}`,
    key,
    name: key === 'kit' ? 'Locker and kit' : 'Order radio',
    job: 'Deckhand',
    site: 'Skerry Pier',
    due,
    latestFinish: null,
    canStart: true,
    isTeams: false,
    isTakenByMe: false,
    takenBy: null,
    ...more
  }) as Task;

const listOf = (...tasks: Task[]) => new TaskList(() => tasks);
const shown = (list: TaskList) => list.groups.map((g) => [g.name, g.tasks.map((t) => t.hireId).join('')]);

test('by kind, the lockers of many stand together, the group with the most urgent first', () => {
  const list = listOf(
    task('a', 'radio', '2027-03-01'),
    task('b', 'kit', '2027-02-20'),
    task('c', 'kit', '2027-03-05'),
    task('d', 'radio', null)
  );
  list.grouping = 'kind';
  expect(shown(list)).toEqual([
    ['Locker and kit', 'bc'],
    ['Order radio', 'ad']
  ]);
  list.grouping = 'hire';
  expect(shown(list).map((g) => g[0])).toEqual(['Hire b', 'Hire a', 'Hire c', 'Hire d']);
});

test('what comes later is folded until it is asked for, and found by the filter all the same', () => {
  const list = listOf(task('a', 'kit', '2027-03-01'), task('b', 'kit', '2027-03-02', { canStart: false }));
  expect(shown(list)).toEqual([[null, 'a']]);
  list.filter = 'hire B';
  expect([list.now.length, list.laterOnes.length]).toEqual([0, 1]);
  list.later = true;
  expect(shown(list)).toEqual([
    [null, ''],
    [null, 'b']
  ]);
});

test('a task of the team is mine once I took it', () => {
  const list = listOf(
    task('a', 'kit', null, { isTeams: true }),
    task('b', 'kit', null, { isTeams: true, isTakenByMe: true }),
    task('c', 'kit', null, { isTeams: true, takenBy: 'Nils Aakre' }),
    task('d', 'kit', null)
  );
  list.whose = 'own';
  expect(shown(list)).toEqual([[null, 'bd']]);
  list.whose = 'team';
  expect(shown(list)).toEqual([[null, 'abc']]);
});

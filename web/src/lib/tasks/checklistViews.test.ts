import type { Api } from '$lib/api/client';
import { expect, test } from 'vitest';
import { groupChecklist } from './checklistViews';

const task = (key: string, owner: string, due: string | null, done: string | null = null) =>
  ({ key, owner, due, latestFinish: null, done, skippedWhy: null }) as Api['TaskResponse'];
const tasks = [
  task('kit', 'team:stores', '2027-03-05'),
  task('badge', 'coordinator', null),
  task('radio', 'team:stores', '2027-03-02'),
  task('contract', 'newcomer', '2027-02-20', '2027-02-19')
];

test('by owner each has theirs together, in the order of the checklist', () => {
  expect(groupChecklist(tasks, 'owner').map((g) => [g.id, g.tasks.map((t) => t.key)])).toEqual([
    ['team:stores', ['kit', 'radio']],
    ['coordinator', ['badge']],
    ['newcomer', ['contract']]
  ]);
});

test('by date what is open comes first, the next due before what has no date, and what is done last', () => {
  expect(groupChecklist(tasks, 'date')[0]!.tasks.map((t) => t.key)).toEqual(['radio', 'kit', 'badge', 'contract']);
});

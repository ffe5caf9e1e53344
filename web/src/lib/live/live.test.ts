import { adminKeys } from '$lib/admin/queries';
import { hireKeys } from '$lib/hires/queries';
import { listKeys } from '$lib/lists/queries';
import { payCheckKeys } from '$lib/payCheck/queries';
import { revisionKeys } from '$lib/revision/queries';
import { recordKeys } from '$lib/record/queries';
import { requestKeys } from '$lib/requests/queries';
import { taskKeys } from '$lib/tasks/queries';
import { templateKeys } from '$lib/templates/queries';
import { loadFieldLabels } from '$lib/text/fieldLabels.svelte';
import { QueryClient, type QueryKey } from '@tanstack/svelte-query';
import { beforeEach, expect, test, vi } from 'vitest';
import { hear } from './live';

const renewed = vi.hoisted(() => vi.fn());
vi.mock('$lib/api/session.svelte', () => ({ session: { renewed, once: () => Promise.resolve(), user: null } }));
vi.mock('$lib/text/fieldLabels.svelte', () => ({ loadFieldLabels: vi.fn() }));

const kept: Record<string, QueryKey> = {
  'a hire': hireKeys.one('h1'),
  'another hire': hireKeys.one('h2'),
  arrivals: hireKeys.arrivals,
  waiting: hireKeys.waiting,
  'a record': recordKeys.one('r1'),
  'its history': recordKeys.history('r1'),
  'another record': recordKeys.one('r2'),
  tasks: taskKeys.mine,
  'who is away': taskKeys.absences,
  templates: templateKeys.all,
  'a template': templateKeys.one('DECK'),
  'what a hire would get': hireKeys.preview({ template: 'DECK' }),
  'roles and rights': adminKeys.rights,
  'what is asked for': requestKeys.waiting,
  options: listKeys.options,
  'a calendar drawn': listKeys.preview('calendar', 2027),
  'a pay run': payCheckKeys.run({ group: 'crew', on: null }),
  revisions: revisionKeys.made
};
let client: QueryClient;

beforeEach(() => {
  client = new QueryClient();
  for (const key of Object.values(kept)) client.setQueryData(key, 'read');
});

const stale = () => Object.keys(kept).filter((what) => client.getQueryState(kept[what]!)?.isInvalidated);

test.each([
  ['hire:h1', ['a hire', 'arrivals', 'a record', 'its history', 'another record', 'tasks', 'a pay run']],
  ['record:r1', ['a hire', 'another hire', 'arrivals', 'a record', 'its history', 'tasks', 'a pay run']],
  ['intake', ['waiting']],
  ['requests', ['a record', 'its history', 'another record', 'what is asked for', 'a pay run']],
  ['absences', ['tasks', 'who is away', 'what is asked for']],
  ['templates', ['templates', 'a template', 'what a hire would get', 'a calendar drawn']],
  ['lists', ['what a hire would get', 'options', 'a calendar drawn', 'a pay run']],
  ['pay', ['tasks', 'a pay run', 'revisions']]
])('%s makes stale what shows it, and nothing else', async (change, shown) => {
  await hear(client, change);
  expect(stale()).toEqual(shown);
  expect(loadFieldLabels).not.toHaveBeenCalled();
});

test('where something may have been missed all is fetched again, and the names of fields', async () => {
  await hear(client, 'all');
  expect(stale()).toEqual(Object.keys(kept));
  expect(loadFieldLabels).toHaveBeenCalledOnce();
});

test('with the same rights only what tells of rights is stale, with others everything is forgotten', async () => {
  renewed.mockResolvedValueOnce(false);
  await hear(client, 'rights');
  expect(stale()).toEqual(['roles and rights']);
  renewed.mockResolvedValueOnce(true);
  await hear(client, 'rights');
  expect(Object.values(kept).filter((key) => client.getQueryData(key) !== undefined)).toEqual([]);
});

import type { Api } from '$lib/api/client';
import { expect, test } from 'vitest';
import { isChecked, isClean, seen } from './payCheckLine';

const line = (over: Partial<Api['PayCheckLine']> = {}): Api['PayCheckLine'] => ({
  employmentId: 'e1',
  number: '100',
  name: 'Tomasz Brandt',
  news: [{ kind: 'starts', day: '2027-03-08', before: null, after: null }],
  findings: [],
  lastGross: null,
  difference: null,
  amounts: { gross: 1085.76, deductions: 147.04, net: 938.72, employerCost: 1150.91 },
  check: null,
  department: null,
  costCentre: null,
  version: 'v1',
  ...over
});
const mark = (holds: boolean) => ({ byName: 'Ruth', at: '2027-03-01T08:00:00Z', changedSince: holds ? [] : ['gross'], holds });

test('a tick holds until something changes', () => {
  expect(isChecked(line())).toBe(false);
  expect(isChecked(line({ check: mark(true) }))).toBe(true);
  expect(isChecked(line({ check: mark(false) }))).toBe(false);
});

test.each<[string, Partial<Api['PayCheckLine']>, boolean]>([
  ['nothing stands against it', {}, true],
  ['it is ticked already', { check: mark(true) }, false],
  ['it changed after it was ticked', { check: mark(false) }, false],
  ['something is to be looked at', { findings: [{ kind: 'outsideBand', stops: false, run: null, number: 2.4 }] }, false],
  ['the run pays nothing', { amounts: null }, false]
])('ticked with others where %s: %j', (_, over, clean) => expect(isClean(line(over))).toBe(clean));

test('the server is told which version of each line was seen', () =>
  expect(seen([line(), line({ employmentId: 'e2', version: 'v2' })])).toEqual([
    { employmentId: 'e1', version: 'v1' },
    { employmentId: 'e2', version: 'v2' }
  ]));

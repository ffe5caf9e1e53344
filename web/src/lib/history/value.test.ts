import type { Api } from '$lib/api/client';
import { describe, expect, it } from 'vitest';
import { changed, isRestated } from './value';

const value = (over: Partial<Api['HistoryValue']>): Api['HistoryValue'] =>
  ({
    id: over.id ?? '',
    field: 'room',
    value: 'A',
    display: null,
    from: '2027-01-01',
    to: null,
    knownTo: null,
    changeId: 'c1',
    endedBy: null,
    ...over
  }) as Api['HistoryValue'];

describe('a change from a day on', () => {
  const old = value({ knownTo: '2027-03-01T00:00:00Z', endedBy: 'c2' });
  const shortened = value({ to: '2027-02-28', changeId: 'c2' });
  const next = value({ value: 'B', from: '2027-03-01', changeId: 'c2' });
  const line = [old, shortened, next];

  it('leaves what was true until then true', () => expect(line.map((v) => isRestated(v, line))).toEqual([true, false, false]));
  it('is shown as old and new', () => {
    const [one] = changed({ id: 'c2', fields: ['room'] } as Api['HistoryChange'], line);
    expect([one!.before?.value, one!.after?.value]).toEqual(['A', 'B']);
  });
});

describe('a correction', () => {
  const wrong = value({ knownTo: '2027-03-01T00:00:00Z', endedBy: 'c2' });
  const right = value({ value: 'B', changeId: 'c2' });

  it('takes back what was never true', () => expect(isRestated(wrong, [wrong, right])).toBe(false));
  it('is shown as old and new, and an emptied field as old and nothing', () => {
    expect(changed({ id: 'c2', fields: ['room'] } as Api['HistoryChange'], [wrong, right])[0]).toMatchObject({
      before: wrong,
      after: right
    });
    expect(changed({ id: 'c2', fields: ['room'] } as Api['HistoryChange'], [wrong])[0]!.after).toBeUndefined();
  });
});

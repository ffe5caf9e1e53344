import type { Api } from '$lib/api/client';
import { expect, test } from 'vitest';
import { kindsOf } from './kinds';

const line = (employmentId: string, over: Partial<Api['RevisionLine']> = {}): Api['RevisionLine'] => ({
  employmentId,
  number: '100',
  name: 'Tomasz Brandt',
  job: 'Deckhand',
  per: 'hour',
  before: 17.4,
  after: 17.84,
  annualBefore: 33930,
  annualAfter: 34788,
  limit: 'none',
  enteredAhead: null,
  ...over
});

test('what is otherwise than the percentage says is told apart, and all are among all', () => {
  const kinds = kindsOf([
    line('plain'),
    line('least', { limit: 'atLeast' }),
    line('reaches', { limit: 'bandMaximum' }),
    line('stays', { limit: 'bandMaximum', after: 17.4 }),
    line('ahead', { enteredAhead: '2027-08-16' })
  ]);
  expect(Object.fromEntries(kinds.map((k) => [k.kind, k.lines.map((l) => l.employmentId)]))).toEqual({
    all: ['plain', 'least', 'reaches', 'stays', 'ahead'],
    atLeast: ['least'],
    upToBand: ['reaches'],
    stays: ['stays'],
    ahead: ['ahead']
  });
});

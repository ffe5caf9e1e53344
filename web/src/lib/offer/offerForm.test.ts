import type { Api } from '$lib/api/client';
import { expect, test } from 'vitest';
import { asked, differs, formOf, notNumbers, type OfferForm } from './offerForm';

const held: OfferForm = {
  rate: '17.40',
  paidBy: 'hour',
  hours: '30',
  allowance: '',
  allowanceFor: '',
  allowanceRow: 'new',
  start: '2027-03-08'
};

test.each<[string, Partial<OfferForm>, Record<string, unknown>, string | null]>([
  ['nothing', {}, {}, null],
  ['a rate with a comma', { rate: ' 18,20 ' }, { pay_rate: 18.2 }, null],
  ['another time', { paidBy: 'month', rate: '2300' }, { pay_rate: 2300, paid_by: 'month' }, null],
  ['hours taken away', { hours: '' }, { weekly_hours: null }, null],
  [
    'an allowance',
    { allowance: '46', allowanceFor: 'nights ' },
    { 'pay_elements.kind@new': 'allowance', 'pay_elements.amount@new': 46, 'pay_elements.note@new': 'nights' },
    null
  ],
  ['another start', { start: '2027-03-15' }, {}, '2027-03-15']
])('of %s the server is asked what differs', (_, over, changes, start) => {
  const form = { ...held, ...over };
  expect(asked(form, held)).toEqual({ changes, start });
  expect(differs(form, held)).toBe(start !== null || Object.keys(changes).length > 0);
});

test('what is no number is found before anybody is asked', () => {
  expect(notNumbers(held)).toEqual([]);
  expect(notNumbers({ ...held, rate: '17.40 EUR', hours: 'part-time' })).toEqual(['rate', 'hours']);
});

test('a form begins as the record is', () => {
  const field = (key: string, value: unknown) => ({ key, value }) as Api['FieldResponse'];
  const record = {
    start: '2027-03-08',
    sections: [
      { fields: [field('room', '7'), field('pay_rate', 17.4), field('paid_by', 'hour')] },
      { fields: [field('weekly_hours', 30), { ...field('pay_elements', null), rows: { rows: [] } }] }
    ]
  } as unknown as Api['RecordResponse'];
  const shown = (n: number) => (Number.isInteger(n) ? String(n) : n.toFixed(2));
  const form = formOf(record, shown);
  expect(form).toEqual({ ...held, allowanceRow: form.allowanceRow });
});

test('the allowance that holds is the one an offer is about', () => {
  const row = (id: string, of: Record<string, unknown>) => ({
    id,
    cells: Object.entries(of).map(([column, value]) => ({ key: `pay_elements.${column}@${id}`, value }))
  });
  const rows = [
    row('ended', { kind: 'allowance', amount: 10, until: '2027-02-28' }),
    row('evenings', { kind: 'secondJob', amount: 15.2 }),
    row('nights', { kind: 'allowance', amount: 46, note: 'nights' })
  ];
  const record = {
    start: '2027-03-08',
    today: '2027-03-01',
    sections: [{ fields: [{ key: 'pay_elements', value: null, rows: { rows } }] }]
  } as unknown as Api['RecordResponse'];
  const form = formOf(record, String);
  expect(form).toMatchObject({ allowance: '46', allowanceFor: 'nights', allowanceRow: 'nights' });
  expect(asked({ ...form, allowance: '50' }, form).changes).toEqual({ 'pay_elements.amount@nights': 50 });
  expect(asked({ ...form, allowance: ' ' }, form).changes).toEqual({ 'pay_elements@nights': null });
});

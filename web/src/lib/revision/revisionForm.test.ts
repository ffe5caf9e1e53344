import { expect, test } from 'vitest';
import { asked, emptyForm, notNumbers, sheetOf, type RevisionForm } from './revisionForm';

const form = (over: Partial<RevisionForm> = {}): RevisionForm => ({ ...emptyForm('2027-03-01'), percent: '2,5', ...over });

test.each([
  ['2027-03-01', '2027-04-01'],
  ['2027-01-31', '2027-02-01'],
  ['2027-12-15', '2028-01-01'],
  ['2027-09-30', '2027-10-01']
])('from %s on the day is %s unless said otherwise', (today, from) => expect(emptyForm(today).from).toBe(from));

test('a rule is asked for as it was typed, with what is not said left out', () => {
  expect(asked(form({ grade: 'C2', atLeast: '0.40' }))).toEqual({
    group: { grade: 'C2', job: null, site: null, payGroup: null },
    percent: 2.5,
    atLeastHourly: 0.4,
    upToBand: true,
    from: '2027-04-01'
  });
  expect(asked(form({ percent: '', atLeast: '1' }))?.percent).toBe(0);
});

test.each<[string, Partial<RevisionForm>]>([
  ['there is no rule', { percent: '' }],
  ['a rule of nothing', { percent: '0', atLeast: '0,00' }],
  ['there is no day', { from: null }],
  ['a part is no number', { atLeast: 'forty' }]
])('nothing is asked while %s', (_, over) => expect(asked(form(over))).toBeUndefined());

test('what is no number is named', () => {
  expect(notNumbers(form())).toEqual([]);
  expect(notNumbers(form({ percent: '2 %', atLeast: '-1' }))).toEqual(['percent', 'atLeast']);
});

test('the sheet is of the same rule and group', () => {
  const address = new URL(sheetOf(asked(form({ site: 'north', upToBand: false }))!, 'de'), 'http://here');
  expect(Object.fromEntries(address.searchParams)).toEqual({
    from: '2027-04-01',
    percent: '2.5',
    atLeastHourly: '0',
    upToBand: 'false',
    language: 'de',
    site: 'north'
  });
});

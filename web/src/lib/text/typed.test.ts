import { expect, test } from 'vitest';
import { typedOf, valueOf } from './typed';

test.each([
  ['text', 'Deckhand', 'Deckhand'],
  ['text', '  ', null],
  ['money', '17.40', 17.4],
  ['yesNo', 'yes', true],
  ['yesNo', 'no', false],
  ['choices', 'PINK\nBLUE', ['PINK', 'BLUE']],
  ['date', '2027-03-01', '2027-03-01']
] as const)('what is typed into a field of the type %s is taken as it holds it: %j', (type, typed, value) => {
  expect(valueOf({ type }, typed)).toEqual(value);
});

test.each([
  ['money', 17.4, '17.40'],
  ['money', 0.0125, '0.0125'],
  ['money', 12, '12.00'],
  ['number', 12, '12'],
  ['yesNo', false, 'no'],
  ['choices', ['PINK', 'BLUE'], 'PINK\nBLUE'],
  ['text', null, ''],
  ['text', undefined, '']
] as const)('a value of a field of the type %s is shown as one types it: %j', (type, value, typed) => {
  expect(typedOf({ type, value })).toBe(typed);
});

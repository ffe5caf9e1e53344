import { describe, expect, it } from 'vitest';
import { dayMonth, dayNumber, isoDay, mondayOf, showDay } from './dates';

describe('dates', () => {
  it.each([
    ['2027-03-08', '2027-03-01', 'en-GB', 'Mon 8 Mar'],
    ['2026-12-31', '2027-03-01', 'en-GB', 'Thu 31 Dec 2026'],
    ['2027-03-08', '2027-03-01', 'de', 'Mo 8. März'],
    ['2028-02-29', '2027-03-01', 'de', 'Di 29. Feb. 2028']
  ])('%s seen from %s in %s is %s', (iso, today, locale, shown) => {
    expect(showDay(iso, today, locale)).toBe(shown);
  });

  it('leaves the year out of a day and month', () => {
    expect(dayMonth('2027-03-08', 'en-GB')).toBe('8 Mar');
  });

  it('counts days through the end of summer time', () => {
    expect(dayNumber('2027-11-01') - dayNumber('2027-10-30')).toBe(2);
    expect(isoDay(dayNumber('2027-10-31'))).toBe('2027-10-31');
  });

  it('finds the Monday of a week from any of its days', () => {
    for (const d of ['2027-03-01', '2027-03-04', '2027-03-07']) expect(isoDay(mondayOf(dayNumber(d)))).toBe('2027-03-01');
  });
});

import { describe, expect, it } from 'vitest';
import { dayNumber, isoDay } from '$lib/text/dates';
import { TimeScale } from './TimeScale';

describe('a time scale', () => {
  const scale = new TimeScale(dayNumber('2027-03-03'), dayNumber('2027-03-24'), 280);

  it('covers whole weeks', () => {
    expect(scale.weeks.map((w) => w.iso)).toEqual(['2027-03-01', '2027-03-08', '2027-03-15', '2027-03-22']);
    expect(scale.x('2027-03-01')).toBe(0);
    expect(scale.x('2027-03-29')).toBe(280);
  });

  it('tells the day of a place, all across the day and no further than it goes', () => {
    const day = (x: number) => isoDay(scale.dayAt(x));
    expect([0, 9.9, 10.1, 275, 400, -50].map(day)).toEqual([
      '2027-03-01',
      '2027-03-01',
      '2027-03-02',
      '2027-03-28',
      '2027-03-28',
      '2027-03-01'
    ]);
    expect(day(scale.x('2027-03-17'))).toBe('2027-03-17');
  });

  it('keeps what lies outside at its edges', () => {
    expect(scale.x('2026-01-01')).toBe(0);
    expect(scale.x('2029-01-01')).toBe(280);
    expect(scale.holds('2029-01-01')).toBe(false);
  });

  it('leaves labels out before they touch', () => {
    const narrow = new TimeScale(dayNumber('2027-03-01'), dayNumber('2027-03-28'), 100);
    expect(narrow.weeks.filter((w) => w.labelled).map((w) => w.iso)).toEqual(['2027-03-01', '2027-03-22']);
  });

  it('paints weekends where Saturday begins and Monday ends them', () => {
    expect(scale.ground).toContain('transparent 1px 50px, var(--color-weekend) 50px 70px');
  });

  it('stands aligned on a day whatever day of the week that is, with the weekends where they are', () => {
    for (const day of ['2027-03-01', '2027-03-04', '2027-03-07']) {
      const around = TimeScale.around(day, 2, 2, 280);
      expect([around.x(day), around.weeks.map((week) => week.x)]).toEqual([140, [0, 70, 140, 210]]);
      expect(around.weeks[2]!.iso).toBe(day);
    }
    // From a Thursday on, the Monday lies three days before the edge.
    expect(TimeScale.around('2027-03-04', 2, 2, 280).ground).toMatch(/\) -30px 0 \/ 70px 100%$/);
  });
});

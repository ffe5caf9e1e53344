import { describe, expect, it } from 'vitest';
import { lastDay, stepOf, tenths, tone, worst } from './stallRow';

const row = (more: object = {}) => ({ median: 4, p75: 5, p90: 9, work: 5, heldUpShare: 0.1, ...more });

describe('a row of where it stalls', () => {
  it('is as bad as the promise is broken for half of them, for a quarter, or for fewer', () => {
    expect(tone(row({ median: 5.5 }))).toBe('rust');
    expect(tone(row({ p75: 5.25 }))).toBe('ochre');
    expect(tone(row())).toBe('sea');
  });
  it('of which nothing was promised or done is not bad', () => {
    expect(tone(row({ work: null, median: 50 }))).toBe('sea');
    expect(tone(row({ median: null, p75: null, p90: null }))).toBe('sea');
  });
  it('fits on the drawing with its promise, up to a labelled line', () => {
    expect(lastDay([row({ p90: 17 }), row({ work: 3 })])).toBe(18);
    expect(lastDay([row({ p90: 3, work: 23 })])).toBe(25);
    expect(lastDay([])).toBe(1);
    expect([stepOf(10), stepOf(11), stepOf(100), stepOf(101), stepOf(5000)]).toEqual([1, 2, 10, 20, 200]);
  });
  it('that held up most is spoken of, of two alike the longer; none that hardly did', () => {
    const [often, rare] = [row({ heldUpShare: 0.4 }), row({ heldUpShare: 0.04, p90: 90 })];
    expect(worst([rare, row(), often])).toBe(often);
    const longer = row({ heldUpShare: 0.4, p90: 12 });
    expect(worst([often, longer])).toBe(longer);
    expect(worst([rare, row({ heldUpShare: null })])).toBeUndefined();
    expect([tenths(0.38), tenths(0.05), tenths(1)]).toEqual([4, 1, 10]);
  });
});

import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { dueOf, dueWords } from './due';

describe('the date of a task', () => {
  beforeEach(() => void vi.stubGlobal('navigator', { language: 'en-GB' }));
  afterEach(() => void vi.unstubAllGlobals());
  it('is its own due date, also where others need it sooner', () => {
    const task = { due: '2027-03-08', latestFinish: '2027-03-04' };
    expect(dueOf(task)).toBe('2027-03-08');
    expect(dueWords(task)).toBe('due Mon 8 Mar 2027');
  });
  it('is the day by which others need it where it has none of its own', () => {
    const task = { due: null, latestFinish: '2027-03-04' };
    expect(dueOf(task)).toBe('2027-03-04');
    expect(dueWords(task)).toBe('finish by Thu 4 Mar 2027');
  });
  it('is none where nothing waits for it', () => {
    expect(dueOf({ due: null, latestFinish: null })).toBeNull();
    expect(dueWords({ due: null, latestFinish: null })).toBe('');
  });
});

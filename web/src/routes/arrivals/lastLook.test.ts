import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Row } from './arrivals';
import { LastLook } from './lastLook';

const row = (id: string, more: { start?: string; done?: number; late?: number; feasible?: boolean } = {}) =>
  ({
    id,
    start: more.start ?? '2027-03-08',
    readiness: { done: more.done ?? 3 },
    late: more.late ?? 0,
    feasible: more.feasible ?? true
  }) as Row;
const minutes = 60_000;

describe('what changed since the last look', () => {
  let now = 0;
  const looks = (user = 'orla') => new LastLook(user, () => now);
  beforeEach(() => {
    const kept = new Map<string, string>();
    vi.stubGlobal('localStorage', { getItem: (k: string) => kept.get(k) ?? null, setItem: (k: string, v: string) => void kept.set(k, v) });
    now = 1_000 * minutes;
  });

  it('is nothing at the first look', () => {
    const first = looks();
    first.see([row('a')]);
    expect(first.newsOf(row('b'))).toBeUndefined();
  });

  it.each([
    ['new', row('b')],
    ['moved', row('a', { start: '2027-03-15', done: 5 })],
    ['notReady', row('a', { feasible: false, late: 2 })],
    ['late', row('a', { late: 1, done: 4 })],
    ['done', row('a', { done: 4 })],
    [undefined, row('a')],
    // Fewer are no news worth a word.
    [undefined, row('a', { done: 2 })]
  ] as const)('is %s, the weightiest first', (news, now_) => {
    looks().see([row('a')]);
    now += 31 * minutes;
    expect(looks().newsOf(now_)).toBe(news);
  });

  it('is what can be ready again', () => {
    looks().see([row('a', { feasible: false })]);
    now += 31 * minutes;
    expect(looks().newsOf(row('a'))).toBe('ready');
  });

  it('stays told while one goes to and fro, until nobody looked for half an hour', () => {
    looks().see([row('a')]);
    now += 30 * minutes;
    for (let i = 0; i < 3; i++) {
      const again = looks();
      expect(again.newsOf(row('a', { done: 4 }))).toBe('done');
      again.see([row('a', { done: 4 })]);
      now += 29 * minutes;
    }
    now += minutes;
    expect(looks().newsOf(row('a', { done: 4 }))).toBeUndefined();
  });

  it('is told to whoever looked, and to nobody else', () => {
    looks('orla').see([row('a')]);
    now += 60 * minutes;
    expect(looks('piet').newsOf(row('b'))).toBeUndefined();
    expect(looks('orla').newsOf(row('b'))).toBe('new');
  });

  it('is nothing where the browser keeps nothing, or something unreadable', () => {
    vi.stubGlobal('localStorage', {
      getItem: () => '{',
      setItem: () => {
        throw new Error('full');
      }
    });
    const look = looks();
    look.see([row('a')]);
    expect(look.newsOf(row('b'))).toBeUndefined();
  });
});

import { describe, expect, it } from 'vitest';
import { stepsFrom, stepsOf, typedSteps } from './steps';

describe('the steps of a task', () => {
  it('are typed one to a line, with those in German beside them', () => {
    expect(stepsFrom(' Locker \n\nGloves\n', 'Spind\nHandschuhe')).toEqual([
      { name: 'Locker', nameDe: 'Spind' },
      { name: 'Gloves', nameDe: 'Handschuhe' }
    ]);
    expect(stepsFrom('Locker\nBoots', 'Spind')).toEqual([{ name: 'Locker', nameDe: 'Spind' }, { name: 'Boots' }]);
    expect(stepsFrom('  \n', 'Spind')).toBeUndefined();
  });

  it('come back as they were typed', () => {
    const steps = [{ name: 'Locker', nameDe: 'Spind' }, { name: 'Boots' }];
    expect(typedSteps(steps, false)).toBe('Locker\nBoots');
    expect(typedSteps(steps, true)).toBe('Spind\nBoots');
    expect(stepsFrom(typedSteps(steps, false), typedSteps(steps, true))).toEqual(steps);
    expect(typedSteps([{ name: 'Boots' }], true)).toBe('');
  });

  it('are none where a layer says something else', () => {
    expect(stepsOf({})).toEqual([]);
    expect(stepsOf({ steps: 'Locker' })).toEqual([]);
    expect(stepsOf({ steps: [null, { name: 'Locker' }] })).toEqual([{ name: 'Locker' }]);
  });
});

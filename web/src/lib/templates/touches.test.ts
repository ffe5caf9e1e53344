import { beforeAll, describe, expect, it, vi } from 'vitest';
import { layerLooks } from './layers';
import { offsetWords } from './shown';
import type { Example } from './spec';
import { countFates } from './touches';

describe('what an update means for hires under way', () => {
  it('counts each hire once for whatever it has of each fate', () => {
    const hire = (...fates: string[]) => ({ facts: fates.map((fate) => ({ fate })) }) as Parameters<typeof countFates>[0][number];
    expect(countFates([hire('take', 'take'), hire('take', 'conflict'), hire('keep'), hire()])).toEqual({
      touched: 4,
      take: 2,
      keep: 1,
      conflict: 1
    });
  });
});

describe('layers as they are drawn', () => {
  it('tells the edited one from those below and add-ons from each other', () => {
    const layers = [
      { id: 'template:crew@2', code: 'crew', isAddOn: false },
      { id: 'template:deck@4', code: 'deck', isAddOn: false },
      { id: 'addOn:pier@1', code: 'pier', isAddOn: true },
      { id: 'addOn:season@3', code: 'season', isAddOn: true }
    ];
    const looks = layerLooks({ layers } as unknown as Example, 'deck');
    expect(looks.map((l) => l.tone)).toEqual(['bg-faint', 'bg-sea', 'bg-ochre', 'bg-ink']);
    expect(looks.map((l) => l.place)).toEqual([0, 1, 2, 3]);
    expect(layerLooks(undefined, 'deck')).toEqual([]);
  });
});

describe('a day before or after another in words', () => {
  beforeAll(() => void vi.stubGlobal('navigator', { language: 'en-GB', languages: ['en-GB'] }));
  it.each([
    [{ anchor: 'start', offset: -5, unit: 'working' }, '5 working days before the start'],
    [{ anchor: 'start', offset: -1, unit: 'working' }, '1 working day before the start'],
    [{ anchor: 'start', offset: 0, unit: 'days' }, 'on the start'],
    [{ anchor: 'start', offset: 4, unit: 'days' }, '4 days after the start'],
    ['start', undefined],
    [null, undefined]
  ])('%j is %s', (value, words) => expect(offsetWords(value)).toBe(words));

  it('is called by what the template is for', () => {
    const before = { anchor: 'start', offset: -3, unit: 'working' };
    expect(offsetWords(before, 'leaving')).toBe('3 working days before the last day');
    expect(offsetWords(before, 'jobChange')).toBe('3 working days before the change');
    expect(offsetWords({ anchor: 'accepted', offset: 5, unit: 'working' }, 'leaving')).toBe('5 working days after the notice');
  });
});

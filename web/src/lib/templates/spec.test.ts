import { describe, expect, it } from 'vitest';
import { blank, codeOf, entriesOf, formulaOf, keyFrom, withEntries, withEntry, type Entry } from './spec';

const entry = (key: string, properties: Record<string, unknown> = {}, drop = false): Entry =>
  ({ key, properties, drop, shared: null }) as unknown as Entry;
const of = (...entries: Entry[]) => withEntries(blank('Deckhand', false), 'tasks', entries);
const keys = (spec: ReturnType<typeof of>) => entriesOf(spec, 'tasks').map((e) => e.key);

describe('what a template says of an entry', () => {
  it('takes its place, or comes last', () => {
    const spec = of(entry('radio', { work: 1 }), entry('walk', { work: 2 }));
    expect(keys(withEntry(spec, 'tasks', entry('radio', { work: 3 }), false))).toEqual(['radio', 'walk']);
    expect(keys(withEntry(spec, 'tasks', entry('knots', { work: 1 }), false))).toEqual(['radio', 'walk', 'knots']);
  });

  it('is gone once it says nothing of an entry from below, and stays where the entry is its own, or dropped', () => {
    const spec = of(entry('radio', { work: 1 }));
    expect(keys(withEntry(spec, 'tasks', entry('radio'), false))).toEqual([]);
    expect(keys(withEntry(spec, 'tasks', entry('radio'), true))).toEqual(['radio']);
    expect(keys(withEntry(spec, 'tasks', entry('radio', {}, true), false))).toEqual(['radio']);
    expect(keys(withEntry(of(), 'tasks', entry('radio'), false))).toEqual([]);
  });

  it('leaves what it was made from as it was', () => {
    const spec = of(entry('radio', { work: 1 }));
    withEntry(spec, 'tasks', entry('walk', { work: 2 }), true);
    expect(keys(spec)).toEqual(['radio']);
  });
});

describe('a key from a name', () => {
  it.each([
    ['Order the radio', [], 'order-the-radio'],
    ['  Größe & Maß!  ', [], 'gro-e-ma'],
    ['Radio', ['radio', 'radio-2'], 'radio-3'],
    ['无线电', [], 'new'],
    ['无线电', ['new'], 'new-2']
  ])('%s beside %j is %s', (name, taken, key) => expect(keyFrom(name, taken)).toBe(key));
});

describe('what stands for a value', () => {
  it.each([
    [{ formula: 'addMonths(start_date, 6)' }, 'addMonths(start_date, 6)'],
    [{ formula: 'x', more: 1 }, undefined],
    [['formula'], undefined],
    [null, undefined],
    ['formula', undefined]
  ])('%j is the formula %s', (value, formula) => expect(formulaOf(value)).toBe(formula));

  it('knows the code in the id of a layer, whatever the code holds', () => expect(codeOf('template:crew@sea@12')).toBe('crew@sea'));
});

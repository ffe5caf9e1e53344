import type { Api } from '$lib/api/client';
import { describe, expect, it } from 'vitest';
import { Editing } from './editing.svelte';
import { addressIn, allFields, fieldAt, keyIn, rowIn, rowsIn, rowsWith } from './rows';

type Field = Api['FieldResponse'];

const field = (key: string, type: Field['type'], value: unknown = null) =>
  ({
    key,
    type,
    value,
    label: { en: key, de: key },
    changesOverTime: false,
    sensitive: key.includes('secret'),
    coming: []
  }) as unknown as Field;

/** A record with a row of one item, and a number that stands alone. */
function record() {
  const columns = [field('items.item', 'text'), field('items.count', 'number'), field('items.secret', 'text')];
  const items = {
    ...field('items', 'rows'),
    rows: {
      columns,
      key: 'items.item',
      from: null,
      until: null,
      mayRemove: true,
      rows: [{ id: 'one', cells: [field('items.item@one', 'text', 'rope'), field('items.count@one', 'number', 2)], standing: null }]
    }
  };
  return {
    asOf: '2027-03-01',
    today: '2027-03-01',
    version: '1',
    sections: [{ fields: [field('age', 'number', 30), items] }]
  } as unknown as Api['RecordResponse'];
}

const itemsOf = (r: Api['RecordResponse']) => allFields(r).find((f) => f.key === 'items')!;

describe('addresses', () => {
  it('are of a field, a column in a row, or a whole row', () => {
    expect([addressIn('items.count', 'one'), addressIn('items', 'one')]).toEqual(['items.count@one', 'items@one']);
    expect([keyIn('items.count@one'), rowIn('items.count@one'), rowsIn('items.count@one')]).toEqual(['items.count', 'one', 'items']);
    expect([keyIn('age'), rowIn('age'), rowsIn('age')]).toEqual(['age', undefined, 'age']);
  });

  it('find a cell, an empty one, one in a row that is new, and no other', () => {
    const r = record();
    expect(fieldAt(r, 'items.count@one')?.value).toBe(2);
    expect(fieldAt(r, 'items.secret@one')).toMatchObject({ key: 'items.secret@one', value: null });
    expect(fieldAt(r, 'items.count@new')).toMatchObject({ key: 'items.count@new', type: 'number' });
    expect(['items@one', 'items.nothing@one', 'nothing'].map((a) => fieldAt(r, a))).toEqual([undefined, undefined, undefined]);
  });
});

describe('rows as they are changed', () => {
  it('are those stored and those added, each with all its columns', () => {
    const [one, fresh] = rowsWith(itemsOf(record()), { 'items.item@new': '', 'items.count@one': '3', 'other.item@x': '1' });
    expect([one!.id, one!.fresh, one!.gone, [...one!.cells.keys()]]).toEqual([
      'one',
      false,
      false,
      ['items.item', 'items.count', 'items.secret']
    ]);
    expect([fresh!.id, fresh!.fresh, fresh!.cells.get('items.count')!.key]).toEqual(['new', true, 'items.count@new']);
    expect(rowsWith(itemsOf(record()), {})).toHaveLength(1);
  });

  it('are sent by the types of their columns, and a row that goes as nothing', () => {
    const [r, editing] = [record(), new Editing()];
    editing.set(r, fieldAt(r, 'items.count@one')!, '1.5');
    editing.set(r, fieldAt(r, 'items.item@new')!, 'lamp');
    expect(editing.sent(r)).toEqual({ 'items.count@one': 1.5, 'items.item@new': 'lamp' });
    editing.takeAway(r, 'items', 'one');
    expect(editing.sent(r)).toEqual({ 'items.item@new': 'lamp', 'items@one': null });
    expect(editing.overwrites).toBe(true);
    editing.putBack('items', 'one');
    expect(editing.sent(r)).toEqual({ 'items.item@new': 'lamp' });
  });

  it('that are new stay while they have nothing, and go at once when taken away', () => {
    const [r, editing] = [record(), new Editing()];
    editing.begin(r, 'items.item@new');
    expect([editing.count, editing.overwrites]).toEqual([1, false]);
    editing.set(r, fieldAt(r, 'items.item@new')!, 'lamp');
    editing.set(r, fieldAt(r, 'items.item@new')!, '');
    expect(rowsWith(itemsOf(r), editing.changes)).toHaveLength(2);
    editing.takeAway(r, 'items', 'new');
    expect(editing.count).toBe(0);
  });

  it('of what is stored are as they were when the same is typed', () => {
    const [r, editing] = [record(), new Editing()];
    editing.set(r, fieldAt(r, 'items.count@one')!, '3');
    editing.set(r, fieldAt(r, 'items.count@one')!, '2');
    expect(editing.count).toBe(0);
  });

  it('keep nothing sensitive in the browser', () => {
    const [r, editing] = [record(), new Editing()];
    editing.set(r, fieldAt(r, 'items.secret@one')!, 'x');
    editing.set(r, fieldAt(r, 'items.item@one')!, 'line');
    expect(editing.typed?.changes).toEqual({ 'items.item@one': 'line' });
  });

  it('that somebody else changed meanwhile are asked about cell by cell', async () => {
    const [r, editing] = [record(), new Editing()];
    editing.set(r, fieldAt(r, 'items.count@one')!, '5');
    const theirs = record();
    itemsOf(theirs).rows!.rows[0]!.cells[1]!.value = 4;
    editing.stale = theirs;
    expect(editing.conflicts()).toMatchObject([{ theirs: '4', ours: '5' }]);
    editing.resolve({});
    expect(editing.count).toBe(0);
  });
});

import { beforeEach, describe, expect, it } from 'vitest';
import { HireGrid, meant, type GridColumn } from './hireGrid.svelte';

const jobs: GridColumn = {
  key: 'job',
  label: 'Job',
  type: 'text',
  choices: [
    { value: 'deck', label: 'Deckhand' },
    { value: 'deck-l', label: 'Lead deckhand' },
    { value: 'cook', label: 'Ship’s cook' }
  ]
};
const driver: GridColumn = {
  key: 'driver',
  label: 'Drives',
  type: 'yesNo',
  choices: [
    { value: 'yes', label: 'ja' },
    { value: 'no', label: 'nein' }
  ]
};
const template: GridColumn = { key: 'template', label: 'Role template', type: 'text', choices: [] };

describe('what a cell means', () => {
  it.each([
    ['DECKHAND', 'deck'],
    ['deck-l', 'deck-l'],
    ['cook', 'cook'],
    ['deck', 'deck'],
    ['hand', 'hand'],
    ['captain', 'captain']
  ])('%s is %s', (cell, value) => expect(meant(jobs, cell)).toBe(value));
});

describe('the grid', () => {
  let grid: HireGrid;
  beforeEach(() => (grid = new HireGrid()));

  const headings = [
    { key: 'given_name', label: 'Given name' },
    { key: 'family_name', label: 'Family name' },
    { key: 'locker', label: 'Locker' }
  ];
  const cells = (row: number) => ({ ...grid.rows[row]!.cells });

  it('takes cells from a spreadsheet from a place on, with as many rows as they need', () => {
    grid.paste('Ines\tMarsh\r\nTuấn\t"Pham\nVan"\r\n\tLow\r\n', 2, 0, headings);
    expect(grid.rows).toHaveLength(5);
    expect([cells(2), cells(3), cells(4)]).toEqual([
      { given_name: 'Ines', family_name: 'Marsh' },
      { given_name: 'Tuấn', family_name: 'Pham Van' },
      { given_name: '', family_name: 'Low' }
    ]);
  });

  it('puts the cells under what a first line of headings names, and shows those columns', () => {
    grid.paste('FAMILY NAME\t\tlocker\nMarsh\tx\t12', 0, 3, headings);
    expect(cells(0)).toEqual({ family_name: 'Marsh', locker: '12' });
    expect(grid.shown).toContain('locker');
  });

  it('takes a line that only begins like headings for what it is: cells', () => {
    grid.paste('Locker\tMarsh', 0, 0, headings);
    expect(cells(0)).toEqual({ given_name: 'Locker', family_name: 'Marsh' });
  });

  it('fills down into rows that are used, and into no others', () => {
    grid.rows[0]!.cells.site = 'Skerry Pier';
    grid.rows[2]!.cells.given_name = 'Ines';
    grid.fillDown(0, 'site');
    expect(grid.rows.map((r) => r.cells.site)).toEqual(['Skerry Pier', undefined, 'Skerry Pier']);
  });

  it('leaves what stands in the rows below, and says how many cells it left', () => {
    grid.rows.forEach((r, i) => (r.cells = { given_name: 'Ines', site: ['Skerry Pier', 'Hallan', ''][i]! }));
    expect(grid.fillDown(0, 'site')).toBe(1);
    expect(grid.rows.map((r) => r.cells.site)).toEqual(['Skerry Pier', 'Hallan', 'Skerry Pier']);
  });

  it('takes an empty cell for nothing to fill down', () => {
    grid.rows[1]!.cells.site = 'Hallan';
    expect(grid.fillDown(0, 'site')).toBe(0);
    expect(grid.undo()).toBe(false);
  });

  it('takes back exactly the last act, one after the other, and does them again', () => {
    const type = (row: number, key: string, ...typed: string[]) =>
      typed.forEach((cell) => {
        grid.before(`${grid.rows[row]!.id}/${key}`);
        grid.rows[row]!.cells[key] = cell;
      });
    type(0, 'given_name', 'I', 'In', 'Ines');
    type(0, 'site', 'Hallan');
    type(1, 'given_name', 'Tuấn');
    grid.fillDown(0, 'site');
    grid.paste('Low\tMarsh', 1, 0, headings);
    grid.remove(grid.rows[0]!.id);
    const names = () => grid.rows.map((r) => `${r.cells.given_name ?? ''} ${r.cells.site ?? ''}`.trim()).filter(Boolean);
    const after = [
      ['Low Hallan'],
      ['Ines Hallan', 'Low Hallan'],
      ['Ines Hallan', 'Tuấn Hallan'],
      ['Ines Hallan', 'Tuấn'],
      ['Ines Hallan'],
      ['Ines'],
      []
    ];
    for (const stands of after.slice(0, -1)) {
      expect(names()).toEqual(stands);
      expect(grid.undo()).toBe(true);
    }
    expect(names()).toEqual([]);
    expect(grid.undo()).toBe(false);
    for (const stands of after.slice(0, -1).reverse()) {
      expect(grid.redo()).toBe(true);
      expect(names()).toEqual(stands);
    }
  });

  it('does not do again what was taken back once something else is done', () => {
    grid.paste('Ines\tMarsh', 0, 0, headings);
    grid.undo();
    grid.paste('Tuấn\tLow', 0, 0, headings);
    expect(grid.redo()).toBe(false);
    expect(cells(0)).toEqual({ given_name: 'Tuấn', family_name: 'Low' });
  });

  it.each([
    ['ja', true],
    ['no', false],
    ['perhaps', 'perhaps']
  ])('sends %s as %s, so that what is neither yes nor no is refused', (cell, sent) => {
    grid.rows[0]!.cells.driver = cell;
    expect(grid.requests([template, driver])[0]!.typed).toEqual({ driver: sent });
  });
});

import type { Api, ProblemEntry } from '$lib/api/client';
import { text } from '$lib/text/index.svelte';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { HireGrid } from './hireGrid.svelte';
import { ManyHires, type Typable } from './manyHires.svelte';

const field = (key: string, type: string, more: object = {}) =>
  ({ key, type, label: { en: key, de: key }, ...more }) as unknown as Api['FieldResponse'];
const typable = {
  templates: [
    { code: 'deckhand', name: 'Deckhand', opens: true, occasion: 'arrival' },
    { code: 'night', name: 'Night work', opens: false }
  ],
  fields: [
    field('site', 'choice', { list: 'sites' }),
    field('driver', 'yesNo'),
    field('shirt', 'choice', {
      options: [
        { value: 's', label: { en: 'Small', de: 'Klein' }, retired: false },
        { value: 'x', label: { en: 'Huge', de: 'Riesig' }, retired: true }
      ]
    }),
    field('start_date', 'date'),
    field('service', 'computed'),
    field('scan', 'file'),
    field('items', 'rows')
  ],
  options: [
    { list: 'sites', code: 'pier', name: 'Skerry Pier', nameDe: null, retired: false },
    { list: 'sites', code: 'old', name: 'Old Quay', nameDe: null, retired: true },
    { list: 'jobs', code: 'cook', name: 'Cook', nameDe: null, retired: false }
  ]
} as unknown as Typable;
const problem = (pointer: string, follows: string | null = null): ProblemEntry => ({ pointer, code: 'odd', detail: pointer, follows });

describe('many hires', () => {
  let grid: HireGrid;
  let many: ManyHires;
  beforeEach(() => {
    grid = new HireGrid();
    many = new ManyHires(grid, () => typable);
  });
  const column = (key: string) => many.columns.find((c) => c.key === key)!;
  /** Puts what the server says of the first row in its place. */
  const answered = (problems: ProblemEntry[], more: object = {}) =>
    (grid.answers = [{ problems, preview: null, known: null, twin: null, ...more } as unknown as Api['ManyRow']]);

  it('offers in each column what may be chosen now, and nothing that is retired or of another list', () => {
    grid.shown.push('driver', 'shirt');
    expect(['template', 'site', 'driver', 'shirt', 'email'].map((k) => column(k).choices?.map((c) => c.value))).toEqual([
      ['deckhand'],
      ['pier'],
      ['yes', 'no'],
      ['s'],
      undefined
    ]);
    expect([column('start').type, column('email').type, column('driver').type]).toEqual(['date', 'text', 'yesNo']);
  });

  it('adds columns of fields that fit into a cell and have none yet, and takes away those added', () => {
    expect(many.addable.map((f) => f.key)).toEqual(['driver', 'shirt']);
    many.show('driver');
    expect([many.addable.map((f) => f.key), many.isAlways(column('driver')), many.isAlways(column('site'))]).toEqual([
      ['shirt'],
      false,
      true
    ]);
    many.hide(column('driver'));
    expect(grid.shown).not.toContain('driver');
    grid.undo();
    expect(grid.shown).toContain('driver');
  });

  it('shows what is wrong at its cell, what it follows from first', () => {
    const row = grid.rows[0]!;
    row.cells = { given_name: 'Ines', template: 'deckhand', site: 'x' };
    answered([problem('/typed/given_name', '/typed/site'), problem('/typed/site'), problem('/typed/nowhere')]);
    expect(many.problemsOf(row).map((p) => [p.label, p.follows])).toEqual([
      [column('site').label, undefined],
      [column('given_name').label, column('site').label]
    ]);
    expect([many.wrong.length, many.causes]).toEqual([2, 1]);
    expect(many.problemsOf(grid.rows[1]!)).toEqual([]);
  });

  it('does not ask for a template before something stands in its cell', () => {
    const row = grid.rows[0]!;
    row.cells = { given_name: 'Ines' };
    answered([problem('/template')]);
    expect(many.wrong).toEqual([]);
    row.cells.template = 'x';
    expect(many.wrong).toHaveLength(1);
  });

  it('keeps what was refused apart where no column stands for it', () => {
    grid.rows[0]!.cells = { given_name: 'Ines' };
    many.refused = [problem('/hires/0/typed/site'), problem('/hires/0/typed/shirt'), problem('/hires/1/typed/site')];
    expect([many.wrong.map((p) => p.label), many.besides.map((e) => e.pointer)]).toEqual([
      [column('site').label],
      ['/hires/0/typed/shirt']
    ]);
  });

  it.each([
    ['2027-02-28', true],
    ['2027-03-01', false],
    ['soon', false]
  ])('a first day on %s lies in the past: %s', (day, past) => {
    vi.spyOn(text, 'today', 'get').mockReturnValue('2027-03-01');
    grid.rows[0]!.cells = { start: day };
    grid.day = (cell) => (cell === 'soon' ? null : cell);
    expect(many.past).toBe(past);
    expect(many.wrong.map((p) => p.label)).toEqual(day === 'soon' ? [column('start').label] : []);
  });

  it('shows what the template gives where nothing is typed', () => {
    const row = grid.rows[0]!;
    row.cells = { given_name: 'Ines' };
    const values = [
      { field: 'site', value: 'pier', display: 'Skerry Pier' },
      { field: 'shirt', value: 3, display: null }
    ];
    answered([], { preview: { values } });
    grid.shown.push('shirt');
    expect(['site', 'shirt', 'email'].map((k) => many.given(row, column(k)))).toEqual(['Skerry Pier', '3', '']);
  });

  it('makes a row somebody the firm knows, spelt as the firm does, and takes that back', () => {
    const row = grid.rows[0]!;
    row.cells = { given_name: 'Ins', family_name: 'Marsh' };
    const known = { personId: 'p', givenName: 'Inès', familyName: 'Marsh', reusable: [], secondStint: true };
    many.isOf(row, known as unknown as Api['KnownPerson']);
    expect([row.person, row.cells.given_name]).toEqual([
      { id: 'p', name: 'Inès Marsh', reuse: [], secondStint: true, meant: false },
      'Inès'
    ]);
    many.isElse(row);
    expect([row.person, row.not]).toEqual([undefined, ['p']]);
  });
});

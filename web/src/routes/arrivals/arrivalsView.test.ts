import type { Api } from '$lib/api/client';
import { beforeEach, describe, expect, it } from 'vitest';
import { filtersOf, occasionOf, placeOf, type Row } from './arrivals';
import { ArrivalsView } from './arrivalsView.svelte';

const hire = (id: string, given: string, family: string, more: Partial<Row> = {}) =>
  ({
    id,
    givenName: given,
    familyName: family,
    siteCode: 'pier',
    site: 'Skerry Pier',
    start: '2027-03-01',
    feasible: true,
    late: 0,
    waitsForNewcomer: false,
    missing: [],
    holdUp: null,
    ...more
  }) as Row;
const hires = [
  hire('b', 'Ines', 'Marsh', { start: '2027-03-01', feasible: false, holdUp: { slack: -2 } as Row['holdUp'] }),
  hire('a', 'Tuấn', 'Pham Van', { start: '2027-03-02', late: 1, siteCode: 'yard', site: null, holdUp: { slack: 5 } as Row['holdUp'] }),
  hire('c', 'Aoife', 'Low', { start: '2027-03-03', waitsForNewcomer: true, missing: ['email'], siteCode: null, site: null })
];

describe('who is listed', () => {
  it('is said by the address, and those who arrive where it says nothing known', () => {
    for (const occasion of ['arrival', 'jobChange', 'leaving'] as const)
      expect(occasionOf(new URL(placeOf(occasion), 'http://fid.example').searchParams.get('for'))).toBe(occasion);
    expect(['everybody', 'payRun', '', null].map(occasionOf)).toEqual(['arrival', 'arrival', 'arrival', 'arrival']);
  });

  it('is asked about what only newcomers can lack where there are newcomers', () => {
    expect(filtersOf('arrival')).toContain('newcomer');
    expect(filtersOf('leaving')).toEqual(['all', 'changed', 'notReady', 'late']);
  });
});

describe('Arrivals', () => {
  let view: ArrivalsView;
  beforeEach(
    () =>
      (view = new ArrivalsView(
        () => ({ occasion: 'arrival', today: '2027-03-01', stages: [], hires, counts: [] }) as Api['ArrivalsResponse']
      ))
  );
  const shown = () => view.rows.map((r) => r.id).join('');

  it('shows nothing before there is an answer', () => {
    const empty = new ArrivalsView(() => undefined);
    expect([empty.rows, empty.sites, empty.notReady, empty.step(1)]).toEqual([[], [], 0, undefined]);
  });

  it.each([
    ['all', 'bac', 3],
    ['notReady', 'b', 1],
    ['late', 'a', 1],
    ['newcomer', 'c', 1],
    ['incomplete', 'c', 1]
  ] as const)('of %s shows %s, and counts them whatever is shown', (filter, ids, count) => {
    expect(view.count(filter)).toBe(count);
    view.filter = filter;
    expect([shown(), view.count(filter), view.notReady]).toEqual([ids, count, 1]);
  });

  it.each([
    ['start', 'bac'],
    ['name', 'cba'],
    ['slack', 'bac']
  ] as const)('in the order of %s stand %s', (by, ids) => {
    view.by = by;
    expect(shown()).toBe(ids);
  });

  it('names each site once, by its code where it has no other name', () => {
    expect(new ArrivalsView(() => ({ hires: [...hires, ...hires] }) as Api['ArrivalsResponse']).sites).toEqual([
      ['pier', 'Skerry Pier'],
      ['yard', 'yard']
    ]);
  });

  it('finds by the beginnings of a name, within the site and the filter, and shows all again', () => {
    view.find = 'van tuan';
    expect(shown()).toBe('a');
    view.site = 'pier';
    expect(shown()).toBe('');
    view.toggleNotReady();
    view.showAll();
    expect([shown(), view.filter, view.site, view.find]).toEqual(['bac', 'all', '', '']);
    view.toggleNotReady();
    view.toggleNotReady();
    expect(view.filter).toBe('all');
  });

  it.each([
    [undefined, 1, 'b'],
    [undefined, -1, 'c'],
    ['b', 1, 'a'],
    ['a', -1, 'b'],
    ['b', -1, 'b'],
    ['c', 1, 'c'],
    ['gone', 1, 'b']
  ] as const)('from %s a step of %s leads to %s', (from, by, to) => {
    view.selected = from;
    expect(view.step(by)).toEqual({ row: hires.find((h) => h.id === to), at: 'bac'.indexOf(to) });
    expect([view.selected, view.chosen?.id]).toEqual([to, to]);
  });

  it('is entered at the row chosen, at the first where none is shown', () => {
    const entries = () => view.rows.filter((r) => view.isEntry(r)).map((r) => r.id);
    expect(entries()).toEqual(['b']);
    view.selected = 'c';
    expect([entries(), view.at]).toEqual([['c'], 2]);
    view.filter = 'late';
    expect([entries(), view.chosen, view.at]).toEqual([['a'], undefined, -1]);
  });

  it('stands under headings in their order, those without one last, and is stepped through over them', () => {
    view.grouping = 'site';
    const told = () => view.lines.map((l) => l.row?.id ?? `${l.heading!.of} ${l.heading!.count}`);
    expect(told()).toEqual(['Skerry Pier 1', 'b', 'yard 1', 'a', 'null 1', 'c']);
    expect([view.step(1)!.at, view.step(1)!.at, view.step(1)!.at, view.step(1)!.at]).toEqual([1, 3, 5, 5]);
    expect([view.selected, view.at]).toEqual(['c', 5]);
    view.grouping = 'week';
    view.by = 'name';
    expect(told()).toEqual(['2027-03-01 3', 'c', 'b', 'a']);
    view.grouping = 'none';
    expect([told(), view.at]).toEqual([['c', 'b', 'a'], 0]);
  });

  it('shows and counts what changed since the last look', () => {
    const since = new ArrivalsView(
      () => ({ hires }) as Api['ArrivalsResponse'],
      (row) => row.id === 'a'
    );
    expect([since.count('changed'), view.count('changed')]).toEqual([1, 0]);
    since.filter = 'changed';
    expect(since.rows.map((r) => r.id)).toEqual(['a']);
  });
});

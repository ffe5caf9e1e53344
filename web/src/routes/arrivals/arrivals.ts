import { fold } from '$lib/text/fits';
import type { Api } from '$lib/api/client';
import type { HireOccasion } from '$lib/occasions/words';
import { dayNumber, isoDay, mondayOf } from '$lib/text/dates';

export type Row = Api['ArrivalRow'];

export type Filter = 'all' | 'changed' | 'notReady' | 'late' | 'newcomer' | 'incomplete';
/** Of those who work here nobody is new, and nothing is needed of their record. */
export const filtersOf = (occasion: Api['Occasion']): Filter[] => [
  'all',
  'changed',
  'notReady',
  'late',
  ...(occasion === 'arrival' ? (['newcomer', 'incomplete'] as const) : [])
];

/** Where those who arrive, change jobs or leave are listed. */
export const placeOf = (occasion: Api['Occasion']) => (occasion === 'arrival' ? '/arrivals' : `/arrivals?for=${occasion}`);

/** Who is listed at an address; those who arrive, where it does not say. */
export const occasionOf = (said: string | null): HireOccasion => (said === 'jobChange' || said === 'leaving' ? said : 'arrival');

export type Grouping = 'none' | 'week' | 'site' | 'coordinator';
export const groupings: Grouping[] = ['none', 'week', 'site', 'coordinator'];

/** The heading of hires that belong together. */
interface Heading {
  /** What they have in common: the Monday of a week, the name of a site or of a coordinator; null for those without. */
  of: string | null;
  id: string;
  count: number;
}

/** A line of the table: a hire, or the heading over some. */
export type Line = { row: Row; heading?: never } | { row?: never; heading: Heading };

export const lineId = (line: Line) => line.row?.id ?? line.heading!.id;

export type Order = 'start' | 'name' | 'slack';
export const orders: Order[] = ['start', 'name', 'slack'];

const fits: Record<Exclude<Filter, 'changed'>, (row: Row) => boolean> = {
  all: () => true,
  notReady: (row) => !row.feasible,
  late: (row) => row.late > 0,
  newcomer: (row) => row.waitsForNewcomer,
  incomplete: (row) => row.missing.length > 0
};

export const fit = (rows: Row[], filter: Filter, isChanged: (row: Row) => boolean) =>
  rows.filter(filter === 'changed' ? isChanged : fits[filter]);

export const name = (row: { givenName: string; familyName: string }) => `${row.givenName} ${row.familyName}`.trim();

const compare: Record<Order, (a: Row, b: Row) => number> = {
  start: (a, b) => a.start.localeCompare(b.start),
  name: (a, b) => a.familyName.localeCompare(b.familyName) || a.givenName.localeCompare(b.givenName),
  slack: (a, b) => (a.holdUp?.slack ?? Infinity) - (b.holdUp?.slack ?? Infinity) || 0
};

/** In an order; within it as the server gave them, by start and name. */
export const order = (rows: Row[], by: Order) => [...rows].sort(compare[by]);

/** Whether every word typed begins a word of the name. */
export function isNamed(row: Row, typed: string): boolean {
  const words = fold(name(row)).split(/[\s'’-]+/);
  return fold(typed)
    .split(/\s+/)
    .filter(Boolean)
    .every((t) => words.some((w) => w.startsWith(t)));
}

const common: Record<Exclude<Grouping, 'none'>, (row: Row) => string | null> = {
  week: (row) => isoDay(mondayOf(dayNumber(row.start))),
  site: (row) => row.site ?? row.siteCode,
  coordinator: (row) => row.coordinator
};

/** Hires under headings, in the order of these; within each as they came. Those that have none stand last. */
export function lines(rows: Row[], by: Grouping): Line[] {
  if (by === 'none') return rows.map((row) => ({ row }));
  const groups = new Map<string | null, Row[]>();
  for (const row of rows) {
    const of = common[by](row);
    const its = groups.get(of);
    if (its) its.push(row);
    else groups.set(of, [row]);
  }
  return [...groups]
    .sort(([a], [b]) => (a === null ? 1 : b === null ? -1 : a.localeCompare(b)))
    .flatMap(([of, its]): Line[] => [{ heading: { of, id: `${by} ${of ?? ''}`, count: its.length } }, ...its.map((row) => ({ row }))]);
}

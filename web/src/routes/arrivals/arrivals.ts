import { fold } from '$lib/text/fits';
import type { Api } from '$lib/api/client';

export type Row = Api['ArrivalRow'];

export type Filter = 'all' | 'notReady' | 'late' | 'newcomer' | 'incomplete';
export const filters: Filter[] = ['all', 'notReady', 'late', 'newcomer', 'incomplete'];

export type Order = 'start' | 'name' | 'slack';
export const orders: Order[] = ['start', 'name', 'slack'];

const fits: Record<Filter, (row: Row) => boolean> = {
  all: () => true,
  notReady: (row) => !row.feasible,
  late: (row) => row.late > 0,
  newcomer: (row) => row.waitsForNewcomer,
  incomplete: (row) => row.missing.length > 0
};

export const fit = (rows: Row[], filter: Filter) => rows.filter(fits[filter]);

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

import type { Api } from '$lib/api/client';

type Row = Pick<Api['StallRow'], 'median' | 'p75' | 'p90' | 'work' | 'heldUpShare'>;

/** How bad a spread is: worse than promised for half of them, for a quarter, or for fewer. */
export function tone(row: Row): 'rust' | 'ochre' | 'sea' {
  if (row.work === null || row.median === null || row.p75 === null) return 'sea';
  return row.median > row.work ? 'rust' : row.p75 > row.work ? 'ochre' : 'sea';
}

/** The last day of the drawing: the longest spread and every promise fit on it, and it ends on a labelled line. */
export function lastDay(rows: Row[]): number {
  const longest = Math.max(1, ...rows.map((r) => Math.max(r.p90 ?? 0, r.work ?? 0)));
  const every = stepOf(longest);
  return Math.ceil(longest / every) * every;
}

/** The distance between two labelled lines: at most ten of them. */
export const stepOf = (longest: number): number => [1, 2, 5, 10, 20, 50, 100].find((s) => longest / s <= 10) ?? 200;

/** The row to speak of: what held up most; nothing where nothing did. */
export function worst<R extends Row>(rows: R[]): R | undefined {
  return rows
    .filter((r) => (r.heldUpShare ?? 0) >= 0.05)
    .toSorted((a, b) => b.heldUpShare! - a.heldUpShare! || (b.p90 ?? 0) - (a.p90 ?? 0))[0];
}

/** A share in tenths, at least one. */
export const tenths = (share: number): number => Math.max(1, Math.round(share * 10));

import type { Api } from '$lib/api/client';

type Line = Api['RevisionLine'];

/** What of a revision is looked at: all, and what is otherwise than the percentage says. */
export type Kind = 'all' | 'atLeast' | 'upToBand' | 'stays' | 'ahead';

const is: Record<Kind, (line: Line) => boolean> = {
  all: () => true,
  atLeast: (line) => line.limit === 'atLeast',
  upToBand: (line) => line.limit === 'bandMaximum' && line.after > line.before,
  stays: (line) => line.after === line.before,
  ahead: (line) => line.enteredAhead !== null
};

/** The lines of each kind, in their order. */
export const kindsOf = (lines: Line[]) => (Object.keys(is) as Kind[]).map((kind) => ({ kind, lines: lines.filter(is[kind]) }));

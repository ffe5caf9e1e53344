/** Something wrong in a row of a grid or a sheet. */
export interface RowProblem {
  /** By which the cell names it as its description. */
  id: string;
  /** The place of the cell, from 0; null where the row has none. */
  at: number | null;
  /** What the cell is called. */
  label: string;
  says: string;
  /** What it only follows from, as it is called; undefined where it is wrong by itself. */
  follows?: string;
}

/** What is to be mended first, then what follows from it, each in the order of the cells. */
export const causesFirst = (problems: RowProblem[]) =>
  problems.toSorted((a, b) => Number(a.follows !== undefined) - Number(b.follows !== undefined) || (a.at ?? -1) - (b.at ?? -1));

import { api, data, type Api } from '$lib/api/client';
import { fits } from '$lib/text/fits';
import { valueOf } from '$lib/record/editing.svelte';

export interface GridColumn {
  key: string;
  label: string;
  type: Api['FieldResponse']['type'];
  /** What may stand in it: what is shown, and what it means. */
  choices?: { value: string; label: string }[];
}

export interface GridRow {
  id: string;
  cells: Record<string, string>;
}

/** Hires being typed as rows of a grid: each is worked out by its template as it is typed. */
export class Grid {
  rows = $state<GridRow[]>([]);
  answers = $state.raw<Api['ManyRow'][]>([]);
  backDated = $state(false);
  #asked = 0;
  // Dates as they were typed, and what the server reads them as; null for what is no date.
  #dates: Record<string, string | null> = {};

  constructor() {
    this.add(3);
  }

  add(count = 1) {
    for (let i = 0; i < count; i++) this.rows.push({ id: crypto.randomUUID(), cells: {} });
  }

  remove(id: string) {
    this.rows = this.rows.filter((r) => r.id !== id);
    if (this.rows.length === 0) this.add();
  }

  /** Puts cells copied from a spreadsheet in, from a place on, with as many rows as they need. */
  paste(text: string, row: number, column: number, columns: GridColumn[]) {
    const lines = text.replace(/\r\n?/g, '\n').replace(/\n$/, '').split('\n');
    lines.forEach((line, i) => {
      if (row + i >= this.rows.length) this.add();
      line.split('\t').forEach((cell, j) => {
        const at = columns[column + j];
        if (at) this.rows[row + i]!.cells[at.key] = cell.trim();
      });
    });
  }

  /** Repeats a cell in the rows below it. */
  fillDown(row: number, key: string) {
    const value = this.rows[row]?.cells[key] ?? '';
    for (let i = row + 1; i < this.rows.length; i++) if (!this.isEmpty(this.rows[i]!)) this.rows[i]!.cells[key] = value;
  }

  isEmpty = (row: GridRow) => Object.values(row.cells).every((c) => c.trim() === '');

  get used() {
    return this.rows.filter((r) => !this.isEmpty(r));
  }

  requests(columns: GridColumn[]): Api['NewHireRequest'][] {
    return this.used.map((row) => {
      const typed: Record<string, unknown> = {};
      for (const column of columns) {
        const cell = (row.cells[column.key] ?? '').trim();
        if (cell === '' || column.key === 'template' || column.key === 'start') continue;
        typed[column.key] = column.type === 'date' ? (this.#dates[cell] ?? cell) : valueOf(column, meant(column, cell));
      }
      const start = (row.cells.start ?? '').trim();
      return {
        id: row.id,
        template: meant(
          columns.find((c) => c.key === 'template')!,
          (row.cells.template ?? '').trim()
        ),
        start: this.#dates[start] ?? null,
        typed: typed as Api['NewHireRequest']['typed'],
        backDated: this.backDated
      };
    });
  }

  async look(columns: GridColumn[]) {
    const mine = ++this.#asked;
    await this.#readDates(columns);
    const hires = this.requests(columns);
    if (hires.length === 0) {
      this.answers = [];
      return;
    }
    const preview = await data(api.POST('/api/hires/many/preview', { body: { hires } }));
    if (mine === this.#asked) this.answers = preview.rows;
  }

  async #readDates(columns: GridColumn[]) {
    const keys = columns.filter((c) => c.type === 'date').map((c) => c.key);
    const typed = this.used.flatMap((r) => keys.map((k) => (r.cells[k] ?? '').trim())).filter((c) => c !== '' && !(c in this.#dates));
    await Promise.all(
      typed
        .filter((c, i) => typed.indexOf(c) === i)
        .map(async (cell) => {
          const read = await data(api.GET('/api/dates', { params: { query: { text: cell } } })).catch(() => ({ date: null }));
          this.#dates[cell] = read.date;
        })
    );
  }

  /** The day a cell's words mean. */
  day = (cell: string) => this.#dates[cell.trim()];

  /** What the server says of a row. */
  answer(row: GridRow): Api['ManyRow'] | undefined {
    return this.answers[this.used.indexOf(row)];
  }
}

/** The value that a cell's words mean. */
export function meant(column: GridColumn, cell: string): string {
  if (!column.choices || cell === '') return cell;
  const same = (a: string) => a.localeCompare(cell, undefined, { sensitivity: 'base' }) === 0;
  return (column.choices.find((c) => same(c.label) || same(c.value)) ?? column.choices.find((c) => fits(c.label, cell)))?.value ?? cell;
}

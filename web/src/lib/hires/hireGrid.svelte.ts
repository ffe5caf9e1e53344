import { api, data, type Api } from '$lib/api/client';
import { fits } from '$lib/text/fits';
import { valueOf } from '$lib/text/typed';
import Papa from 'papaparse';

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
  /** Somebody the firm knows, of whom it is a new stint. */
  person?: { id: string; name: string; reuse: Api['ReusableFact'][]; secondStint: boolean; meant: boolean };
  /** People it is not, and rows that are not the same person, though it looked so. */
  not?: string[];
}

const first = ['given_name', 'family_name', 'email', 'template', 'start', 'site', 'kind'];

/** Hires being typed as rows of a grid: each is worked out by its template as it is typed. */
export class HireGrid {
  shown = $state([...first]);
  rows = $state<GridRow[]>([]);
  answers = $state.raw<Api['ManyRow'][]>([]);
  backDated = $state(false);
  /** The reason that is kept with each hire: pay outside its band needs one. */
  why = $state('');
  #asked = 0;
  // How the grid stood before each act, the last act last; the acts taken back are kept until something else is done.
  #before: string[] = [];
  #undone: string[] = [];
  #act: string | undefined;
  // Dates as they were typed, and what the server reads them as; null for what is no date.
  #dates: Record<string, string | null> = {};

  constructor() {
    this.add(3);
  }

  get #stand() {
    return JSON.stringify({ shown: this.shown, rows: this.rows });
  }

  /**
   * Keeps how the grid stands, before something is done to it. What is done again and again as one act, such as typing in a cell,
   * gives the act a name and is kept once, until something else is done.
   */
  before(act?: string) {
    if (act !== undefined && act === this.#act) return;
    this.#act = act;
    this.#before = [...this.#before.slice(-99), this.#stand];
    this.#undone = [];
  }

  /** Takes back the last act and nothing else; false where there is none. */
  undo = () => this.#go(this.#before, this.#undone);

  /** Does again what was taken back last; false where there is none. */
  redo = () => this.#go(this.#undone, this.#before);

  #go(from: string[], to: string[]): boolean {
    const stand = from.pop();
    if (stand === undefined) return false;
    to.push(this.#stand);
    this.#act = undefined;
    ({ shown: this.shown, rows: this.rows } = JSON.parse(stand) as Pick<HireGrid, 'shown' | 'rows'>);
    return true;
  }

  clear() {
    this.#asked++;
    this.#before = this.#undone = [];
    this.#act = undefined;
    this.shown = [...first];
    this.rows = [];
    this.answers = [];
    this.backDated = false;
    this.why = '';
    this.add(3);
  }

  add(count = 1) {
    for (let i = 0; i < count; i++) this.rows.push({ id: crypto.randomUUID(), cells: {} });
  }

  remove(id: string) {
    this.before();
    this.rows = this.rows.filter((r) => r.id !== id);
    if (this.rows.length === 0) this.add();
  }

  /**
   * Puts cells copied from a spreadsheet in, from a place on, with as many rows as they need. Where the first line names fields, it
   * says what the columns are, and those that are not shown yet are.
   */
  paste(copied: string, row: number, column: number, headings: { key: string; label: string }[]) {
    this.before();
    const lines = Papa.parse<string[]>(copied.replace(/\r\n?/g, '\n').replace(/\n$/, ''), { delimiter: '\t' }).data;
    const named = headed(lines[0] ?? [], headings);
    if (named) {
      lines.shift();
      for (const key of named) if (key && !this.shown.includes(key)) this.shown.push(key);
    }
    const keys = named ?? this.shown.slice(column);
    lines.forEach((line, i) => {
      if (row + i >= this.rows.length) this.add();
      line.forEach((cell, j) => {
        if (keys[j]) this.rows[row + i]!.cells[keys[j]] = cell.replace(/\s+/g, ' ').trim();
      });
    });
  }

  /** Repeats a cell in the rows below it where they have none yet: what was typed there stays. The number of cells that stayed so. */
  fillDown(row: number, key: string): number {
    const value = this.rows[row]?.cells[key] ?? '';
    if (value.trim() === '') return 0;
    const below = this.rows.slice(row + 1).filter((r) => !this.isEmpty(r));
    const empty = below.filter((r) => (r.cells[key] ?? '').trim() === '');
    if (empty.length > 0) this.before();
    for (const r of empty) r.cells[key] = value;
    return below.filter((r) => r.cells[key] !== value).length;
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
        typed[column.key] = column.type === 'date' ? (this.#dates[cell] ?? cell) : value(column, cell);
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
        person: row.person?.id ?? null,
        reuse: row.person?.reuse.map((r) => r.field) ?? [],
        secondStint: row.person?.meant ?? false,
        notThese: row.not ?? [],
        backDated: this.backDated,
        why: this.why.trim() === '' ? null : this.why.trim()
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

  /** The row above that a row may be the same person as, as long as nobody has said. */
  twin(row: GridRow): GridRow | undefined {
    const at = this.answer(row)?.twin;
    const twin = at === null || at === undefined ? undefined : this.used[at];
    return twin && !row.not?.includes(twin.id) ? twin : undefined;
  }

  /** Somebody the firm knows whom a row may be, as long as nobody has said. */
  maybe(row: GridRow): Api['KnownPerson'] | undefined {
    const known = row.person ? undefined : this.answer(row)?.known;
    return known && !row.not?.includes(known.personId) ? known : undefined;
  }

  /** The rows of which it is still to be said who they are. */
  get undecided() {
    return this.used.filter((r) => this.maybe(r) !== undefined || this.twin(r) !== undefined).length;
  }

  /** Says that a row is not somebody, known or of a row above. */
  isNot(row: GridRow, who: string) {
    this.before();
    row.not = [...(row.not ?? []), who];
  }

  /** What the server says of a row. */
  answer(row: GridRow): Api['ManyRow'] | undefined {
    return this.answers[this.used.indexOf(row)];
  }
}

/** The value that a cell's words mean; the words themselves where they mean none, or could mean several. */
export function meant(column: GridColumn, cell: string): string {
  if (!column.choices || cell === '') return cell;
  const exact = column.choices.find((c) => same(c.label, cell) || same(c.value, cell));
  const fitting = exact ? [exact] : column.choices.filter((c) => fits(c.label, cell));
  return fitting.length === 1 ? fitting[0]!.value : cell;
}

// A word that is neither yes nor no is sent as it is, so that it is refused and not taken for a no.
function value(column: GridColumn, cell: string) {
  const word = meant(column, cell);
  return column.type === 'yesNo' && word !== 'yes' && word !== 'no' ? word : valueOf(column, word);
}

const same = (a: string, b: string) => a.localeCompare(b, undefined, { sensitivity: 'base' }) === 0;

/** The fields a first line of cells names: one for each cell, none for an empty one; undefined where it is no line of headings. */
function headed(line: string[], headings: { key: string; label: string }[]): (string | undefined)[] | undefined {
  const cells = line.map((c) => c.trim());
  const keys = cells.map((c) => headings.find((h) => same(h.label, c) || same(h.key, c))?.key);
  const names = cells.filter((c) => c !== '').length;
  return names > 1 && keys.filter(Boolean).length === names ? keys : undefined;
}

/** What is being typed outlives the page, so that looking something up elsewhere loses nothing. */
export const grid = new HireGrid();

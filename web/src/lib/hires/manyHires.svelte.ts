import type { Api, ProblemEntry } from '$lib/api/client';
import { fieldTitle } from '$lib/text/fieldLabels.svelte';
import { text } from '$lib/text/index.svelte';
import { named } from '$lib/text/named';
import { causesFirst, type RowProblem } from '$lib/ui/rowProblems';
import type { GridColumn, GridRow, HireGrid } from './hireGrid.svelte';
import { fullName } from './known';
import { words } from './words';

/** What the server says that hires can be typed into. */
export interface Typable {
  templates: Api['TemplateRow'][];
  fields: Api['FieldResponse'][];
  options: Api['ListOption'][];
}

// Fields of which a cell cannot hold the value, and the first day, which has a column of its own.
const notInCells = ['computed', 'file', 'person', 'choices', 'rows'];
const always = ['given_name', 'family_name', 'email', 'template', 'start', 'site'];

const pointerOf = (column: string) => (column === 'template' || column === 'start' ? `/${column}` : `/typed/${column}`);

/** The grid of many hires as it is shown: its columns, what is wrong in which cell, and what is left to decide. */
export class ManyHires {
  /** What the server refused when all were to be opened, by pointer. */
  refused = $state.raw<ProblemEntry[]>([]);
  #typable: () => Typable;

  constructor(
    readonly grid: HireGrid,
    typable: () => Typable
  ) {
    this.#typable = typable;
  }

  readonly columns = $derived.by(() => this.grid.shown.map((key) => this.#column(key)));

  /** The fields of which a column can be added. */
  readonly addable = $derived.by(() =>
    this.#typable().fields.filter((f) => !this.grid.shown.includes(f.key) && !notInCells.includes(f.type) && f.key !== 'start_date')
  );

  /** What is wrong, in all rows. */
  readonly wrong = $derived.by(() => this.grid.used.flatMap((row) => this.problemsOf(row)));

  /** How many of them follow from no other. */
  readonly causes = $derived.by(() => this.wrong.filter((p) => p.follows === undefined).length);

  /** What was refused and stands in no column. */
  readonly besides = $derived.by(() => this.refused.filter((e) => !this.columns.some((c) => e.pointer.endsWith(pointerOf(c.key)))));

  /** Whether pay in a row was refused for want of a reason. */
  readonly needsReason = $derived.by(() => this.refused.some((e) => e.pointer.endsWith('/why')));

  /** Whether a first day lies in the past. */
  readonly past = $derived.by(() => this.grid.used.some((r) => (this.grid.day(r.cells.start ?? '') ?? '9999') < text.today));

  isAlways = (column: GridColumn) => always.includes(column.key);

  /** What a copied line of headings may name. */
  get headings() {
    return [...this.columns, ...this.addable.map((f) => ({ key: f.key, label: f.label[text.language] }))];
  }

  #column(key: string): GridColumn {
    const { templates, fields, options } = this.#typable();
    if (key === 'template')
      return {
        key,
        label: words().many.template,
        type: 'text',
        choices: templates.filter((t) => t.opens && t.occasion === 'arrival').map((t) => ({ value: t.code, label: t.name }))
      };
    if (key === 'start') return { key, label: words().many.start, type: 'date' };
    const field = fields.find((f) => f.key === key);
    const choices = field?.list
      ? options.filter((o) => o.list === field.list && !o.retired).map((o) => ({ value: o.code, label: named(o) }))
      : field?.type === 'yesNo'
        ? (['yes', 'no'] as const).map((value) => ({ value, label: text.t.common[value] }))
        : field?.options?.filter((o) => !o.retired).map((o) => ({ value: o.value, label: o.label[text.language] }));
    return { key, label: fieldTitle(key), type: field?.type ?? 'text', choices };
  }

  #problemAt(row: GridRow, column: GridColumn): ProblemEntry | undefined {
    const at = this.grid.used.indexOf(row);
    if (at < 0) return undefined;
    const cell = (row.cells[column.key] ?? '').trim();
    const pointer = pointerOf(column.key);
    if (column.type === 'date' && cell !== '' && this.grid.day(cell) === null)
      return { pointer, code: 'bad-date', detail: '', follows: null };
    // A row without a template is not wrong before one has got that far.
    return (
      this.refused.find((e) => e.pointer === `/hires/${at}${pointer}`) ??
      this.grid.answer(row)?.problems.find((e) => e.pointer === pointer && (column.key !== 'template' || cell !== ''))
    );
  }

  /** What is wrong in a row, each at its column; what follows from another after it. */
  problemsOf(row: GridRow): RowProblem[] {
    return causesFirst(
      this.columns.flatMap((column, at) => {
        const found = this.#problemAt(row, column);
        if (!found) return [];
        const cause = found.follows && this.columns.find((c) => found.follows!.endsWith(pointerOf(c.key)));
        const follows = cause ? cause.label : undefined;
        return { id: `problem-${row.id}-${at}`, at, label: column.label, says: text.problem(found)!, follows };
      })
    );
  }

  /** What the template gives a cell in which nothing is typed. */
  given(row: GridRow, column: GridColumn): string {
    const value = this.grid.answer(row)?.preview?.values.find((v) => v.field === column.key);
    return value ? (value.display ?? String(value.value ?? '')) : '';
  }

  /** Says that a row is somebody the firm knows. */
  isOf(row: GridRow, person: Api['KnownPerson']) {
    this.grid.before();
    row.person = {
      id: person.personId,
      name: fullName(person),
      reuse: person.reusable,
      secondStint: person.secondStint,
      meant: false
    };
    // Written as the firm has it: a slip in what was typed is no change of name.
    row.cells.given_name = person.givenName;
    row.cells.family_name = person.familyName;
  }

  /** Says that a row is none of the person it was said to be. */
  isElse(row: GridRow) {
    if (!row.person) return;
    this.grid.isNot(row, row.person.id);
    row.person = undefined;
  }

  show(field: string) {
    this.grid.before();
    this.grid.shown.push(field);
  }

  hide(column: GridColumn) {
    this.grid.before();
    this.grid.shown = this.grid.shown.filter((s) => s !== column.key);
  }
}

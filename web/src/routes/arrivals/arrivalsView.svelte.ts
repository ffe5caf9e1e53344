import type { Api } from '$lib/api/client';
import { fit, isNamed, lines, order, type Filter, type Grouping, type Order, type Row } from './arrivals';
import { usualLook, type ArrivalsLook } from './arrivalsLook';

/** Which hires of Arrivals are shown, in what order, and which of them is chosen. */
export class ArrivalsView {
  filter = $state<Filter>('all');
  /** The code of the one site shown; empty for all. */
  site = $state('');
  by = $state<Order>(usualLook.by);
  grouping = $state<Grouping>(usualLook.grouping);
  /** Whether the rows are aligned on the first day of each, to compare how far they are. */
  aligned = $state(usualLook.aligned);
  /** What is typed to find somebody. */
  find = $state('');
  /** The id of the row chosen. */
  selected = $state<string>();
  #arrivals: () => Api['ArrivalsResponse'] | undefined;

  constructor(
    arrivals: () => Api['ArrivalsResponse'] | undefined,
    /** Whether something became of a hire since the user last looked. */
    private readonly isChanged: (row: Row) => boolean = () => false,
    look: ArrivalsLook = usualLook
  ) {
    this.#arrivals = arrivals;
    Object.assign(this, look);
  }

  /** How it is looked at: what is kept for the next time. */
  get look(): ArrivalsLook {
    return { by: this.by, grouping: this.grouping, aligned: this.aligned };
  }

  readonly all = $derived.by(() => this.#arrivals()?.hires ?? []);
  readonly notReady = $derived.by(() => this.count('notReady'));

  /** The sites of the hires, as code and name, each once. */
  readonly sites = $derived.by(() =>
    this.all
      .filter((r, i) => r.siteCode !== null && this.all.findIndex((other) => other.siteCode === r.siteCode) === i)
      .map((r) => [r.siteCode!, r.site ?? r.siteCode!] as const)
  );

  /** The hires shown, with the headings over them. */
  readonly lines = $derived.by(() =>
    lines(
      order(
        fit(this.all, this.filter, this.isChanged).filter((r) => (this.site === '' || r.siteCode === this.site) && isNamed(r, this.find)),
        this.by
      ),
      this.grouping
    )
  );

  readonly rows = $derived.by(() => this.lines.flatMap((l) => l.row ?? []));

  /** The row chosen, as long as it is shown. */
  readonly chosen = $derived.by(() => this.rows.find((r) => r.id === this.selected));

  /** The line of the row chosen; -1 where none is shown. */
  readonly at = $derived.by(() => this.lineOf(this.selected));

  count = (filter: Filter) => fit(this.all, filter, this.isChanged).length;

  /** The row that the Tab key leads to: the one chosen, or the first. */
  isEntry = (row: Row) => (this.chosen ?? this.rows[0])?.id === row.id;

  /** Chooses the row so many further down, staying within the table; without one chosen, the first or the last.
   * @returns the row, and the line it stands on. */
  step(by: 1 | -1): { row: Row; at: number } | undefined {
    const from = this.rows.findIndex((r) => r.id === this.selected);
    const to = from < 0 ? (by > 0 ? 0 : this.rows.length - 1) : Math.min(Math.max(from + by, 0), this.rows.length - 1);
    const row = this.rows[to];
    if (!row) return undefined;
    this.selected = row.id;
    return { row, at: this.lineOf(row.id) };
  }

  private lineOf = (id: string | undefined) => this.lines.findIndex((l) => id !== undefined && l.row?.id === id);

  /** The hires not ready alone, or all again. */
  toggleNotReady() {
    this.filter = this.filter === 'notReady' ? 'all' : 'notReady';
  }

  showAll() {
    this.filter = 'all';
    this.site = this.find = '';
  }
}

import type { Api } from '$lib/api/client';
import { fit, isNamed, order, type Filter, type Order, type Row } from './arrivals';

/** Which hires of Arrivals are shown, in what order, and which of them is chosen. */
export class ArrivalsView {
  filter = $state<Filter>('all');
  /** The code of the one site shown; empty for all. */
  site = $state('');
  by = $state<Order>('start');
  /** What is typed to find somebody. */
  find = $state('');
  /** The id of the row chosen. */
  selected = $state<string>();
  #arrivals: () => Api['ArrivalsResponse'] | undefined;

  constructor(arrivals: () => Api['ArrivalsResponse'] | undefined) {
    this.#arrivals = arrivals;
  }

  readonly all = $derived.by(() => this.#arrivals()?.hires ?? []);
  readonly notReady = $derived.by(() => this.count('notReady'));

  /** The sites of the hires, as code and name, each once. */
  readonly sites = $derived.by(() =>
    this.all
      .filter((r, i) => r.siteCode !== null && this.all.findIndex((other) => other.siteCode === r.siteCode) === i)
      .map((r) => [r.siteCode!, r.site ?? r.siteCode!] as const)
  );

  readonly rows = $derived.by(() =>
    order(
      fit(this.all, this.filter).filter((r) => (this.site === '' || r.siteCode === this.site) && isNamed(r, this.find)),
      this.by
    )
  );

  /** The row chosen, as long as it is shown. */
  readonly chosen = $derived.by(() => this.rows.find((r) => r.id === this.selected));

  /** The place of the row chosen; -1 where none is shown. */
  readonly at = $derived.by(() => this.rows.findIndex((r) => r.id === this.selected));

  count = (filter: Filter) => fit(this.all, filter).length;

  /** The row that the Tab key leads to: the one chosen, or the first. */
  isEntry = (row: Row, at: number) => this.selected === row.id || (!this.chosen && at === 0);

  /** Chooses the row so many further down, staying within the table; without one chosen, the first or the last. */
  step(by: 1 | -1): { row: Row; at: number } | undefined {
    const to = this.at < 0 ? (by > 0 ? 0 : this.rows.length - 1) : Math.min(Math.max(this.at + by, 0), this.rows.length - 1);
    const row = this.rows[to];
    if (!row) return undefined;
    this.selected = row.id;
    return { row, at: to };
  }

  /** The hires not ready alone, or all again. */
  toggleNotReady() {
    this.filter = this.filter === 'notReady' ? 'all' : 'notReady';
  }

  showAll() {
    this.filter = 'all';
    this.site = this.find = '';
  }
}

import { dayNumber, isoDay, mondayOf, weekday } from '$lib/text/dates';
import { scaleLinear } from 'd3-scale';

/** Days from left to right, over whole weeks. */
export class TimeScale {
  readonly first: number;
  readonly last: number;
  readonly #x;

  /** From the Monday of the first day to the Sunday of the last. */
  constructor(
    from: number,
    to: number,
    readonly width: number
  ) {
    this.first = mondayOf(from);
    this.last = mondayOf(to) + 7;
    this.#x = scaleLinear().domain([this.first, this.last]).range([0, width]).clamp(true);
  }

  /** The left edge of a day. */
  x = (day: number | string) => this.#x(typeof day === 'string' ? dayNumber(day) : day);

  get dayWidth() {
    return this.width / (this.last - this.first);
  }

  holds = (day: number | string) => {
    const n = typeof day === 'string' ? dayNumber(day) : day;
    return n >= this.first && n <= this.last;
  };

  /** Mondays, as many as can be labelled without touching. */
  get weeks(): { x: number; iso: string; labelled: boolean }[] {
    const every = Math.max(1, Math.ceil(52 / (this.dayWidth * 7)));
    const weeks = [];
    for (let n = this.first, i = 0; n < this.last; n += 7, i++) weeks.push({ x: this.#x(n), iso: isoDay(n), labelled: i % every === 0 });
    return weeks;
  }

  /** Saturdays to Sundays, as bands. */
  get weekends(): { x: number; width: number }[] {
    const bands = [];
    for (let n = this.first; n < this.last; n++) if (weekday(n) === 5) bands.push({ x: this.#x(n), width: this.dayWidth * 2 });
    return bands;
  }
}

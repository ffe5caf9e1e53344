import { dayNumber, isoDay, mondayOf } from '$lib/text/dates';
import { scaleLinear } from 'd3-scale';

/** Days from left to right, over whole weeks from a Monday, or from the day of the week of a day they are aligned on. */
export class TimeScale {
  readonly first: number;
  readonly last: number;
  readonly #x;

  /** From the Monday of the first day to the Sunday of the last. */
  constructor(
    from: number,
    to: number,
    readonly width: number,
    /** Whether it begins and ends on these very days. */
    exactly = false
  ) {
    this.first = exactly ? from : mondayOf(from);
    this.last = exactly ? to : mondayOf(to) + 7;
    this.#x = scaleLinear().domain([this.first, this.last]).range([0, width]).clamp(true);
  }

  /** Whole weeks around a day, which stands at the same place whichever day it is. */
  static around(day: string, weeksBefore: number, weeksAfter: number, width: number) {
    return new TimeScale(dayNumber(day) - weeksBefore * 7, dayNumber(day) + weeksAfter * 7, width, true);
  }

  /** The left edge of a day. */
  x = (day: number | string) => this.#x(typeof day === 'string' ? dayNumber(day) : day);

  /** The day that a place is on; the first or the last for places outside. */
  dayAt = (x: number) => Math.floor(Math.min(Math.max(this.#x.invert(x), this.first), this.last - 1));

  get dayWidth() {
    return this.width / (this.last - this.first);
  }

  holds = (day: number | string) => {
    const n = typeof day === 'string' ? dayNumber(day) : day;
    return n >= this.first && n <= this.last;
  };

  /** The first day of each week, as many as can be labelled without touching. */
  get weeks(): { x: number; iso: string; labelled: boolean }[] {
    const every = Math.max(1, Math.ceil(52 / (this.dayWidth * 7)));
    const weeks = [];
    for (let n = this.first, i = 0; n < this.last; n += 7, i++) weeks.push({ x: this.#x(n), iso: isoDay(n), labelled: i % every === 0 });
    return weeks;
  }

  /** A CSS background for what is drawn on it: a line at each Monday, and Saturdays to Sundays as bands. */
  get ground(): string {
    const [friday, sunday] = [this.dayWidth * 5, this.dayWidth * 7];
    const week = `linear-gradient(90deg, var(--color-rule) 0 1px, transparent 1px ${friday}px, var(--color-weekend) ${friday}px ${sunday}px)`;
    return `${week} ${(mondayOf(this.first) - this.first) * this.dayWidth}px 0 / ${sunday}px 100%`;
  }
}

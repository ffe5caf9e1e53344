import { session } from '$lib/api/session.svelte';
import { ApiProblem, type ProblemEntry } from '$lib/api/client';
import { dayMonth, dayNumber, showDay } from './dates';
import type { Messages } from './en';
import { listFormat, numberFormat } from './formats';
import { language, wordsOf } from './language.svelte';

const messages = await wordsOf<Messages>({ en: async () => (await import('./en')).en, de: async () => (await import('./de')).de });

/** What the interface says, in the reader's language. */
class Text {
  get language() {
    return language.spoken;
  }
  get t() {
    return messages();
  }

  get today() {
    return session.today;
  }

  day = (iso: string) => showDay(iso, session.today, this.t.locale);
  shortDay = (iso: string) => dayMonth(iso, this.t.locale);

  /** "in 7 days", "yesterday". */
  distance = (iso: string) => {
    const n = dayNumber(iso) - dayNumber(session.today);
    return n === 0 ? this.t.distance.today : n > 0 ? this.t.distance.ahead(n) : this.t.distance.ago(-n);
  };
  /** As distance before a start, "day 8" from it on. */
  untilStart = (iso: string) => {
    const n = dayNumber(iso) - dayNumber(session.today);
    return n > 0 ? this.t.distance.ahead(n) : this.t.distance.sinceStart(1 - n);
  };

  number = (n: number, digits?: number) =>
    numberFormat(this.t.locale, digits === undefined ? {} : { minimumFractionDigits: digits, maximumFractionDigits: digits }).format(n);
  /** Minutes as hours: 450 is "7.5". */
  hours = (minutes: number) => this.number(Math.round(minutes / 0.6) / 100);
  money = (n: number, whole = false) =>
    numberFormat(this.t.locale, {
      style: 'currency',
      currency: session.currency,
      minimumFractionDigits: whole ? 0 : 2,
      maximumFractionDigits: whole ? 0 : 4
    }).format(n);

  /** "a, b and c". */
  list = (items: string[]) => listFormat(this.t.locale).format(items);

  owner = (owner: string, name: string | null | undefined, mine = false) => {
    if (mine) return this.t.owner.you;
    if (name) return name;
    return owner in this.t.owner ? this.t.owner[owner as keyof typeof this.t.owner] : owner;
  };

  /** What to tell about a mistake: in the reader's language where we have it, else as the server put it. */
  problem = (entry: ProblemEntry | undefined) => {
    if (!entry) return undefined;
    const known = this.t.problems[entry.code];
    // The server's own sentence often says more ("from 0.01 to 168"), but only in English.
    return this.language === 'en' && entry.detail ? entry.detail : (known ?? entry.detail);
  };
  failure = (error: unknown) => this.#said(error, this.t.problems.fallback!);
  /** What to say where something could not be shown: nothing was to be saved. */
  unread = (error: unknown) =>
    error instanceof ApiProblem && error.code === 'fault'
      ? this.#traced(error, this.t.problems.unread!)
      : this.#said(error, this.t.problems.unread!);

  #said(error: unknown, otherwise: string) {
    return error instanceof ApiProblem ? this.#traced(error, this.t.problems[error.code] ?? otherwise) : otherwise;
  }
  #traced(error: ApiProblem, sentence: string) {
    return error.status >= 500 && error.traceId ? `${sentence} (${error.traceId.split('-')[1] ?? error.traceId})` : sentence;
  }
}

export const text = new Text();

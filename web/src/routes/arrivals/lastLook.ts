import type { Row } from './arrivals';

/** What of a hire one would notice. */
interface Seen {
  start: string;
  done: number;
  late: number;
  ready: boolean;
}

/** Hires as they were when somebody looked at them, by their ids. */
type Look = Record<string, Seen>;

interface Kept {
  /** What changes are told against. */
  before: Look | null;
  latest: Look;
  /** When the latest was seen, in milliseconds. */
  at: number;
}

/** What became of a hire since the last look. */
export type News = 'new' | 'moved' | 'notReady' | 'ready' | 'late' | 'done';

// So long nobody looks before what they saw counts as their last look: who opens a checklist and comes back is still looking.
const pause = 30 * 60_000;

const seen = (row: Row): Seen => ({ start: row.start, done: row.readiness.done, late: row.late, ready: row.feasible });

/** Tells what changed since this user last looked at Arrivals in this browser. */
export class LastLook {
  readonly #before: Look | null;
  readonly #key: string;

  /** @param user Whose look it is: several may share a browser. */
  constructor(
    user: string,
    private readonly now: () => number = Date.now
  ) {
    this.#key = `fid-arrivals ${user}`;
    const kept = this.#read();
    this.#before = kept === null ? null : this.now() - kept.at >= pause ? kept.latest : kept.before;
  }

  /** Keeps what is seen now for the next time. */
  see(rows: Row[]) {
    const kept: Kept = { before: this.#before, latest: Object.fromEntries(rows.map((row) => [row.id, seen(row)])), at: this.now() };
    try {
      localStorage.setItem(this.#key, JSON.stringify(kept));
    } catch {
      // A browser that keeps nothing tells nothing of the last time.
    }
  }

  /** What became of a hire; undefined where nothing did, and before there was a look. The first that applies is told. */
  newsOf = (row: Row): News | undefined => {
    if (!this.#before) return undefined;
    const was = this.#before[row.id];
    if (!was) return 'new';
    const is = seen(row);
    if (is.start !== was.start) return 'moved';
    if (is.ready !== was.ready) return is.ready ? 'ready' : 'notReady';
    if (is.late > was.late) return 'late';
    return is.done > was.done ? 'done' : undefined;
  };

  #read(): Kept | null {
    try {
      return JSON.parse(localStorage.getItem(this.#key) ?? 'null') as Kept | null;
    } catch {
      return null;
    }
  }
}

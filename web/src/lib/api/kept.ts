const prefix = 'fid-typed ';

/** What somebody typed and has not saved, kept in this browser until they do or sign out. */
export class KeptTyping<T> {
  readonly #key: string;

  /** @param what Whose it is, and of what. */
  constructor(...what: string[]) {
    this.#key = `${prefix}${what.join(' ')}`;
  }

  /** Keeps it in the place of what was kept; undefined forgets it. */
  keep(typed: T | undefined) {
    try {
      if (typed === undefined) localStorage.removeItem(this.#key);
      else localStorage.setItem(this.#key, JSON.stringify(typed));
    } catch {
      // A full or forbidden store keeps nothing; typing goes on.
    }
  }

  /** What was kept; undefined where nothing was, or nothing that can be read. */
  get kept(): T | undefined {
    try {
      const kept = localStorage.getItem(this.#key);
      return kept === null ? undefined : (JSON.parse(kept) as T);
    } catch {
      this.keep(undefined);
      return undefined;
    }
  }
}

/** Forgets what anybody typed, as when somebody signs out. */
export function forgetTyping() {
  for (const key of Object.keys(localStorage)) if (key.startsWith(prefix)) localStorage.removeItem(key);
}

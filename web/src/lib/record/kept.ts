import type { Editing, Typed } from './editing.svelte';
import type { Api } from '$lib/api/client';

const prefix = 'fid-typed ';

/** What somebody typed into a record and has not saved, kept in this browser. */
export class KeptDraft {
  #key: string;

  constructor(user: string, record: string) {
    this.#key = `${prefix}${user} ${record}`;
  }

  keep(editing: Editing, record: Api['RecordResponse']) {
    const typed = editing.typed;
    try {
      if (typed) localStorage.setItem(this.#key, JSON.stringify({ ...typed, on: record.today }));
      else localStorage.removeItem(this.#key);
    } catch {
      // A full or forbidden store keeps nothing; typing goes on.
    }
  }

  /** Puts back what was kept, and answers the day it was typed on. */
  restore(editing: Editing): string | undefined {
    try {
      const kept = localStorage.getItem(this.#key);
      if (!kept) return undefined;
      const typed = JSON.parse(kept) as Typed & { on: string };
      editing.resume(typed);
      return typed.on;
    } catch {
      localStorage.removeItem(this.#key);
      return undefined;
    }
  }

  /** Forgets what anybody typed, as when somebody signs out. */
  static forgetAll() {
    for (const key of Object.keys(localStorage)) if (key.startsWith(prefix)) localStorage.removeItem(key);
  }
}

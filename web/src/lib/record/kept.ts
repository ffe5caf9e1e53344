import type { Api } from '$lib/api/client';
import { KeptTyping } from '$lib/api/kept';
import type { Editing, Typed } from './editing.svelte';

/** What somebody typed into a record and has not saved, kept in this browser. */
export class KeptDraft {
  readonly #typing: KeptTyping<Typed & { on: string }>;

  constructor(user: string, record: string) {
    this.#typing = new KeptTyping(user, record);
  }

  keep(editing: Editing, record: Api['RecordResponse']) {
    const typed = editing.typed;
    this.#typing.keep(typed && { ...typed, on: record.today });
  }

  /** Puts back what was kept, and answers the day it was typed on. */
  restore(editing: Editing): string | undefined {
    const typed = this.#typing.kept;
    if (!typed) return undefined;
    try {
      editing.resume(typed);
      return typed.on;
    } catch {
      // Kept by another version of the application.
      this.#typing.keep(undefined);
      return undefined;
    }
  }
}

import { session } from '$lib/api/session.svelte';

export type Language = 'en' | 'de';

/** Which language the interface speaks, and the words of it that places asked for. */
class InterfaceLanguage {
  readonly #asked = new Set<Words<unknown>>();
  #spoken = $state<Language>('en');
  #begun = false;

  /** The language that is spoken now. The words of every place that was opened are there in it. */
  get spoken() {
    return this.#spoken;
  }
  /** The language of whoever reads: the account's, or before signing in the browser's. */
  get wanted(): Language {
    const said = session.user?.language ?? globalThis.navigator?.language;
    return said?.startsWith('de') ? 'de' : 'en';
  }

  /** Speaks the language that is wanted, once its words are there; until then the one that was spoken. */
  async follow() {
    const wanted = this.wanted;
    // A place may be opened while others are fetched.
    while ([...this.#asked].some((words) => !words.has(wanted))) await Promise.all([...this.#asked].map((words) => words.fetch(wanted)));
    if (wanted === this.wanted) this.#spoken = wanted;
  }

  /** Keeps words in the language that is spoken. */
  async keep(words: Words<unknown>) {
    // Where nobody can be asked who reads, the browser's language it is.
    await session.once().catch(() => {});
    this.#asked.add(words);
    if (!this.#begun) [this.#begun, this.#spoken] = [true, this.wanted];
    while (!words.has(this.#spoken)) await words.fetch(this.#spoken);
  }
}

/** Words that are fetched in one language at a time. */
class Words<T> {
  readonly #sources: Record<Language, () => Promise<T>>;
  readonly #fetched: Partial<Record<Language, T>> = {};

  constructor(sources: Record<Language, () => Promise<T>>) {
    this.#sources = sources;
  }
  get spoken(): T {
    return this.#fetched[language.spoken]!;
  }
  has(wanted: Language) {
    return this.#fetched[wanted] !== undefined;
  }
  async fetch(wanted: Language) {
    this.#fetched[wanted] ??= await this.#sources[wanted]();
  }
}

export const language = new InterfaceLanguage();

/** What a place says, as a function that answers it in the language that is spoken. A module that awaits this is ready with its words. */
export async function wordsOf<T>(sources: Record<Language, () => Promise<T>>): Promise<() => T> {
  const words = new Words(sources);
  await language.keep(words);
  return () => words.spoken;
}

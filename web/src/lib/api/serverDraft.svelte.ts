import { ApiProblem } from './client';

interface Saved {
  version: string;
  byName: string;
}

/**
 * Something edited as a draft that the server keeps with every change: one save after the other, of several changes in a row only the
 * last, and never over what somebody else saved meanwhile.
 */
export abstract class ServerDraft<Content, Draft extends Saved> {
  content = $state.raw() as Content;
  /** Somebody else's draft that was saved meanwhile. */
  other = $state.raw<Draft>();
  isDraft = $state(false);
  saving = $state(false);
  by = $state('');
  #version: string | undefined;
  #waiting: Promise<void> = Promise.resolve();
  #wanted = 0;

  constructor(content: Content) {
    this.content = content;
  }

  /** Sends the draft, as the successor of the version it began from; none for the first. */
  protected abstract save(content: Content, headers: { 'If-Match'?: string }): Promise<Draft>;

  protected abstract contentOf(draft: Draft): Content;

  /** Works out what follows from the draft as it stands. */
  abstract look(): Promise<void>;

  /** What is done with an answer of the server to a save. */
  protected saved?(draft: Draft): Promise<void> | void;

  /** Whether a refusal of the server is dealt with. */
  protected refused?(problem: ApiProblem): boolean;

  get version() {
    return this.#version;
  }

  /** Begins from what the server has: a draft, or what is live. */
  protected begin(draft: Draft | null, live: Content) {
    this.isDraft = draft !== null;
    this.content = draft ? this.contentOf(draft) : live;
    this.#version = draft?.version;
    this.by = draft?.byName ?? '';
    this.other = undefined;
  }

  /** Puts whole content in the draft's place, and saves it. */
  put(content: Content): Promise<void> {
    this.content = content;
    this.isDraft = true;
    const mine = ++this.#wanted;
    this.#waiting = this.#waiting.then(async () => {
      if (mine === this.#wanted) await this.#save();
    });
    return this.#waiting;
  }

  /** Goes on with the other's draft, or puts ours over it. */
  async settle(keepOurs: boolean) {
    const there = this.other!;
    this.other = undefined;
    this.#version = there.version;
    if (keepOurs) await this.put(this.content);
    else {
      this.content = this.contentOf(there);
      await this.look();
    }
  }

  async #save() {
    this.saving = true;
    try {
      const draft = await this.save(this.content, this.#version ? { 'If-Match': this.#version } : {});
      this.#version = draft.version;
      this.by = draft.byName;
      await this.saved?.(draft);
    } catch (e) {
      if (e instanceof ApiProblem && e.status === 412) this.other = e.current as Draft;
      else if (!(e instanceof ApiProblem && this.refused?.(e))) throw e;
    } finally {
      this.saving = false;
    }
  }
}

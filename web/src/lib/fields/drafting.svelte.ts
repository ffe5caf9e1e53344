import { api, ApiProblem, data, type Api } from '$lib/api/client';
import type { Configuration, Field } from './configuration';
import { tidy } from './configuration';

/** The draft of the next configuration: kept by the server as it is edited, shared with whoever else edits it. */
export class Drafting {
  configuration = $state.raw<Configuration>({ sections: [], fields: [] });
  review = $state.raw<Api['ReviewResponse']>();
  /** Somebody else's draft that was saved meanwhile. */
  other = $state.raw<Api['DraftResponse']>();
  /** What the server could not read, by the pointer to it. */
  errors = $state.raw<{ pointer: string; detail: string }[]>([]);
  isDraft = $state(false);
  saving = $state(false);
  by = $state('');
  /** Who asked for it to be published, where somebody else has to agree; and whose account that is. */
  askedBy = $state('');
  askedById = $state('');
  #version: string | undefined;
  #waiting: Promise<void> = Promise.resolve();
  #wanted = 0;

  /** Begins from what the server has. */
  take(fields: Api['FieldsResponse']) {
    this.isDraft = fields.draft !== null;
    this.configuration = (fields.draft?.configuration ?? fields.configuration) as unknown as Configuration;
    this.#version = fields.draft?.version;
    this.by = fields.draft?.byName ?? '';
    this.askedBy = fields.draft?.askedBy ?? '';
    this.askedById = fields.draft?.askedById ?? '';
    this.other = undefined;
    this.errors = [];
    this.review = undefined;
    if (this.isDraft) void this.#lookThrough();
  }

  get version() {
    return this.#version;
  }

  find(key: string) {
    return this.configuration.fields.find((f) => f.key === key);
  }

  /** Changes a field. */
  edit(key: string, change: Partial<Field>) {
    this.put({ ...this.configuration, fields: this.configuration.fields.map((f) => (f.key === key ? tidy({ ...f, ...change }) : f)) });
  }

  /** Puts a whole configuration in the draft's place, and saves it; one save after the other. */
  put(configuration: Configuration) {
    this.configuration = configuration;
    this.isDraft = true;
    const mine = ++this.#wanted;
    this.#waiting = this.#waiting.then(async () => {
      // Of several changes in a row only the last needs to go.
      if (mine === this.#wanted) await this.#save();
    });
    return this.#waiting;
  }

  /** Goes on with the other's draft, or puts ours over it. */
  async settle(keepOurs: boolean) {
    const there = this.other!;
    this.other = undefined;
    this.#version = there.version;
    if (keepOurs) await this.put(this.configuration);
    else {
      this.configuration = there.configuration as unknown as Configuration;
      await this.#lookThrough();
    }
  }

  async #save() {
    this.saving = true;
    try {
      const draft = await data(
        api.PUT('/api/fields/draft', {
          body: { configuration: this.configuration as unknown as Record<string, unknown> },
          headers: this.#version ? { 'If-Match': this.#version } : {}
        })
      );
      this.#version = draft.version;
      this.by = draft.byName;
      this.askedBy = this.askedById = '';
      this.errors = [];
      await this.#lookThrough();
    } catch (e) {
      if (e instanceof ApiProblem && e.status === 412) this.other = e.current as Api['DraftResponse'];
      else if (e instanceof ApiProblem && e.errors.length > 0)
        this.errors = e.errors.map((p) => ({ pointer: p.pointer, detail: p.detail }));
      else throw e;
    } finally {
      this.saving = false;
    }
  }

  async #lookThrough() {
    const looked = this.configuration;
    const review = await data(
      api.POST('/api/fields/draft/review', { body: { configuration: looked as unknown as Record<string, unknown> } })
    );
    if (looked === this.configuration) this.review = review;
  }
}

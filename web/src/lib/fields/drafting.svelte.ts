import { api, data, type ApiProblem, type Api } from '$lib/api/client';
import { ServerDraft } from '$lib/api/serverDraft.svelte';
import type { Configuration, Field } from './configuration';
import { tidy } from './configuration';

const sent = (configuration: Configuration) => configuration as unknown as Record<string, unknown>;

/** The draft of the next configuration, shared with whoever else edits it. */
export class Drafting extends ServerDraft<Configuration, Api['DraftResponse']> {
  review = $state.raw<Api['ReviewResponse']>();
  /** What the server could not read, by the pointer to it. */
  errors = $state.raw<{ pointer: string; detail: string }[]>([]);
  /** Who asked for it to be published, where somebody else has to agree; and whose account that is. */
  askedBy = $state('');
  askedById = $state('');

  constructor() {
    super({ sections: [], fields: [] });
  }

  get configuration() {
    return this.content;
  }

  /** Begins from what the server has. */
  take(fields: Api['FieldsResponse']) {
    this.begin(fields.draft, fields.configuration as unknown as Configuration);
    this.askedBy = fields.draft?.askedBy ?? '';
    this.askedById = fields.draft?.askedById ?? '';
    this.errors = [];
    this.review = undefined;
    if (this.isDraft) void this.look();
  }

  find(key: string) {
    return this.content.fields.find((f) => f.key === key);
  }

  /** Changes a field. */
  edit(key: string, change: Partial<Field>) {
    return this.put({ ...this.content, fields: this.content.fields.map((f) => (f.key === key ? tidy({ ...f, ...change }) : f)) });
  }

  /** Has the server look through the draft for what is wrong in it and what it would change. */
  async look() {
    const looked = this.content;
    const review = await data(api.POST('/api/fields/draft/review', { body: { configuration: sent(looked) } }));
    if (looked === this.content) this.review = review;
  }

  protected save(configuration: Configuration, headers: { 'If-Match'?: string }) {
    return data(api.PUT('/api/fields/draft', { body: { configuration: sent(configuration) }, headers }));
  }

  protected contentOf(draft: Api['DraftResponse']) {
    return draft.configuration as unknown as Configuration;
  }

  protected override async saved() {
    this.askedBy = this.askedById = '';
    this.errors = [];
    await this.look();
  }

  protected override refused(problem: ApiProblem) {
    this.errors = problem.errors.map((p) => ({ pointer: p.pointer, detail: p.detail }));
    return this.errors.length > 0;
  }
}

import { api, data, type ApiProblem, type Api } from '$lib/api/client';
import { ServerDraft } from '$lib/api/serverDraft.svelte';
import { idFrom, type Configuration, type Group, type Role } from './rights';

const sent = (configuration: Configuration) => configuration as unknown as Record<string, unknown>;

/** The draft of the firm's own roles and groups, shared with whoever else edits it. */
export class RoleDrafting extends ServerDraft<Configuration, Api['RightsDraftResponse']> {
  review = $state.raw<Api['RightsReviewResponse']>();
  /** Who asked for it to be made live, where somebody else has to agree; and whose account that is. */
  askedBy = $state('');
  askedById = $state('');
  /** What the server could not read, by the pointer to it. */
  errors = $state.raw<{ pointer: string; detail: string }[]>([]);

  constructor() {
    super({ roles: [], groups: [] });
  }

  /** Begins from what the server has. */
  take(rights: Api['RolesResponse']) {
    this.begin(rights.draft, rights.configuration as unknown as Configuration);
    this.askedBy = rights.draft?.askedBy ?? '';
    this.askedById = rights.draft?.askedById ?? '';
    this.errors = [];
    this.review = undefined;
    if (this.isDraft) void this.look();
  }

  /** Adds a role, called by a name, from another one or from nothing: its id. */
  addRole(name: string, taken: string[], like?: Role) {
    const id = idFrom(name, [...taken, ...this.content.roles.map((r) => r.id)]);
    const made: Role = { id, label: { en: name }, fields: like?.fields ?? [], rights: like?.rights ?? [] };
    void this.put({ ...this.content, roles: [...this.content.roles, made] });
    return id;
  }
  editRole(id: string, change: Partial<Role>) {
    return this.put({ ...this.content, roles: this.content.roles.map((r) => (r.id === id ? { ...r, ...change } : r)) });
  }
  removeRole(id: string) {
    const groups = this.content.groups.map((g) => (g.roles?.includes(id) ? { ...g, roles: g.roles.filter((r) => r !== id) } : g));
    const roles = this.content.roles.filter((r) => r.id !== id);
    return this.put({ ...this.content, groups, roles, secondFactor: (this.content.secondFactor ?? []).filter((r) => r !== id) });
  }
  /** Says whether a role's holders prove by a second factor who they are. */
  askFactor(id: string, asks: boolean) {
    const others = (this.content.secondFactor ?? []).filter((r) => r !== id);
    return this.put({ ...this.content, secondFactor: asks ? [...others, id] : others });
  }
  addGroup(name: string, when: string) {
    const id = idFrom(
      name,
      this.content.groups.map((g) => g.id)
    );
    void this.put({ ...this.content, groups: [...this.content.groups, { id, label: { en: name }, when }] });
    return id;
  }
  editGroup(id: string, change: Partial<Group>) {
    return this.put({ ...this.content, groups: this.content.groups.map((g) => (g.id === id ? { ...g, ...change } : g)) });
  }
  removeGroup(id: string) {
    return this.put({ ...this.content, groups: this.content.groups.filter((g) => g.id !== id) });
  }

  /** What is wrong with a part of it, by the beginning of its pointer. */
  problem(pointer: string): string | undefined {
    const all = this.errors.length > 0 ? this.errors : (this.review?.problems ?? []);
    return all.find((p) => p.pointer === `/configuration${pointer}` || p.pointer.startsWith(`/configuration${pointer}/`))?.detail;
  }

  /** Has the server look through the draft for what is wrong in it and whom it would give what. */
  async look() {
    const looked = this.content;
    const review = await data(api.POST('/api/rights/draft/review', { body: { configuration: sent(looked) } }));
    if (looked === this.content) this.review = review;
  }

  protected save(configuration: Configuration, headers: { 'If-Match'?: string }) {
    return data(api.PUT('/api/rights/draft', { body: { configuration: sent(configuration) }, headers }));
  }

  protected contentOf(draft: Api['RightsDraftResponse']) {
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

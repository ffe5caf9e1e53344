import { api, ApiProblem, data, type Api } from '$lib/api/client';
import { text } from '$lib/text/index.svelte';

/** The roles that ship, in the order in which they are offered. */
export const shippedRoles = ['coordinator', 'administrator', 'payroll', 'manager', 'owner', 'newcomer'] as const;

/** What an administrator types about an account: a new one, or one there is. */
export class AccountForm {
  name = $state('');
  email = $state('');
  roles = $state<string[]>([]);
  teams = $state<string[]>([]);
  employment = $state<string | null>(null);
  person = $state('');
  language = $state('en');
  problem = $state<unknown>();
  /** The account that is changed; none while somebody is invited. */
  id = $state<string>();
  #version = '';

  /** Begins with what is known of somebody who has no account, or one that sleeps. */
  static inviting(known?: { name: string; email: string | null; employment: string; roles: string[] }, language = 'en'): AccountForm {
    const form = new AccountForm();
    form.language = language;
    if (known) {
      form.name = known.name;
      form.email = known.email ?? '';
      form.roles = known.roles;
      form.employment = known.employment;
      form.person = known.name;
    }
    return form;
  }
  static of({ account, version }: Api['AccountDetail']): AccountForm {
    const form = new AccountForm();
    form.id = account.id;
    form.#version = version;
    form.name = account.name;
    form.email = account.email ?? '';
    form.roles = account.roles;
    form.teams = account.teams;
    form.employment = account.employment;
    form.person = account.person ?? '';
    form.language = account.language;
    return form;
  }

  /** Goes on with what was typed over what somebody else has saved meanwhile. */
  over({ version }: Api['AccountDetail']) {
    this.#version = version;
  }

  /** What is wrong with a part of it; a part that is a list has what is wrong with any of it. */
  error(part: string): string | undefined {
    if (!(this.problem instanceof ApiProblem)) return undefined;
    return text.problem(this.problem.errors.find((e) => e.pointer === `/${part}` || e.pointer.startsWith(`/${part}/`)));
  }
  /** What is wrong with it as a whole. */
  get failure(): string | undefined {
    if (!this.problem) return undefined;
    return this.problem instanceof ApiProblem && this.problem.errors.length > 0 ? undefined : text.failure(this.problem);
  }
  turn(role: string, on: boolean) {
    this.roles = on ? [...this.roles, role] : this.roles.filter((r) => r !== role);
  }

  get #body(): Api['InvitationRequest'] {
    const { name, email, roles, teams, employment, language } = this;
    return { name: name.trim(), email: email.trim(), roles, teams, employment, language };
  }
  /** Invites them: the link to give them. */
  async invite(): Promise<Api['LinkResponse']> {
    return this.#told(() => data(api.POST('/api/accounts', { body: this.#body })));
  }
  async save(): Promise<void> {
    await this.#told(() =>
      data(api.PUT('/api/accounts/{id}', { params: { path: { id: this.id! } }, headers: { 'If-Match': this.#version }, body: this.#body }))
    );
  }
  async #told<T>(send: () => Promise<T>): Promise<T> {
    this.problem = undefined;
    try {
      return await send();
    } catch (e) {
      this.problem = e;
      throw e;
    }
  }
}

import { api, data, type Api } from './client';
import { KeptDraft } from '$lib/record/kept';

/** Who is signed in, at which firm, on which day. */
class Session {
  #value = $state<Api['SessionResponse']>();

  get known() {
    return this.#value !== undefined;
  }
  get firm() {
    return this.#value?.firm ?? null;
  }
  get user() {
    return this.#value?.user ?? null;
  }
  /** The firm's date, as the server has it. */
  get today() {
    return this.#value?.today ?? '1970-01-01';
  }
  get currency() {
    return this.#value?.firm?.currency ?? 'EUR';
  }

  has(...roles: string[]): boolean {
    return roles.some((r) => this.user?.roles.includes(r));
  }
  get coordinates() {
    return this.has('coordinator', 'administrator');
  }
  get readsRecords() {
    return this.coordinates || this.has('payroll');
  }
  get seesArrivals() {
    return this.readsRecords || this.has('manager');
  }
  /** Where this person's day begins. */
  get home() {
    return this.seesArrivals ? '/arrivals' : '/tasks';
  }

  async load() {
    this.#value = await data(api.GET('/api/session'));
  }
  async signIn(email: string, password: string) {
    this.#value = await data(api.POST('/api/session', { body: { email, password } }));
  }
  async signOut() {
    await data(api.DELETE('/api/session'));
    KeptDraft.forgetAll();
    await this.load();
  }
  async speak(language: string) {
    await data(api.PUT('/api/session/language', { body: { language } }));
    await this.load();
  }
  /** The server no longer knows us. */
  forget() {
    if (this.#value) this.#value = { ...this.#value, user: null };
  }
}

export const session = new Session();

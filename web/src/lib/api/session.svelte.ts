import { api, data, type Api } from './client';
import { forgetTyping } from './kept';

/** Who is signed in, at which firm, on which day. */
class Session {
  #value = $state<Api['SessionResponse']>();
  #asked: Promise<void> | undefined;
  // Whose session ran out here: what they typed waits for them, and for nobody else.
  #ranOut: string | undefined;

  get known() {
    return this.#value !== undefined;
  }
  get firm() {
    return this.#value?.firm ?? null;
  }
  get user() {
    return this.#value?.user ?? null;
  }
  /** What is to be done with a second factor before somebody is signed in. */
  get secondFactor() {
    return this.#value?.secondFactor ?? null;
  }
  /** The firm's date, as the server has it. */
  get today() {
    return this.#value?.today ?? '1970-01-01';
  }
  get currency() {
    return this.#value?.firm?.currency ?? 'EUR';
  }

  /** Whether the user may do something with a thing, of all people or of some: an action and a thing, such as "edit template". */
  may(right: string): boolean {
    return this.user?.rights.includes(right) ?? false;
  }
  /** Whether there is something in Exchange for the user. */
  get exchanges() {
    return ['edit sheet', 'edit candidate', 'edit connection'].some((r) => this.may(r));
  }
  /** Whether there is something in Admin for the user. */
  get administers() {
    return ['see account', 'see role', 'edit work', 'see trail'].some((r) => this.may(r));
  }
  /** Where this person's day begins. */
  get home() {
    return this.may('see hire') ? '/arrivals' : '/tasks';
  }

  /** Asks who it is, where that was not asked yet. */
  async once() {
    this.#asked ??= this.load();
    try {
      await this.#asked;
    } catch (e) {
      this.#asked = undefined;
      throw e;
    }
  }
  async load() {
    this.#value = await data(api.GET('/api/session'));
  }
  /** Asks anew who it is, and answers whether they may other things than before. */
  async renewed(): Promise<boolean> {
    const before = this.user?.rights.join();
    await this.load();
    return this.user?.rights.join() !== before;
  }
  /** Who looks at Fid as the user does; null mostly. */
  get viewedBy() {
    return this.user?.viewedBy ?? null;
  }
  /** Looks at Fid as somebody else does, until one is oneself again. */
  async viewAs(account: string) {
    await data(api.POST('/api/session/as', { body: { account } }));
    // What was read as oneself is forgotten with the page.
    location.assign('/');
  }
  async backToOneself() {
    await data(api.DELETE('/api/session/as'));
    location.assign('/admin');
  }
  async signIn(email: string, password: string) {
    this.take(await data(api.POST('/api/session', { body: { email, password } })));
  }
  /** Takes in who is signed in by now. */
  take(value: Api['SessionResponse']) {
    if (this.#ranOut && value.user && this.#ranOut !== value.user.id) location.assign('/');
    else this.#value = value;
  }
  async signOut() {
    await data(api.DELETE('/api/session'));
    forgetTyping();
    if (this.#value) this.#value = { ...this.#value, user: null };
    // All that was read and typed in this tab is forgotten with the page.
    location.assign('/sign-in');
  }
  async speak(language: string) {
    await data(api.PUT('/api/session/language', { body: { language } }));
    await this.load();
  }
  /** The server no longer knows us. */
  forget() {
    this.#ranOut = this.user?.id ?? this.#ranOut;
    if (this.#value) this.#value = { ...this.#value, user: null };
  }
}

export const session = new Session();

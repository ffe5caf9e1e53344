import type { Api } from '$lib/api/client';
import { fullName } from '$lib/hires/known';
import { valueOf, type Value } from '$lib/text/typed';

const empty = () => ({ given_name: '', family_name: '', email: '', birth_date: '', site: '' }) as Record<string, string>;

/** A hire being typed. It outlives the sheet it is typed in, so that putting the sheet away loses nothing. */
export class Draft {
  /** By which way it is typed. */
  way = $state<'template' | 'full' | 'like'>('template');
  id = $state(crypto.randomUUID());
  template = $state('');
  #start = $state<string | null>(null);
  typed = $state(empty());
  /** Somebody the firm knows, of whom it is a new stint, and what is taken over from the last one. */
  person = $state<{ id: string; name: string }>();
  reuse = $state<string[]>([]);
  /** People it is not, though it looked so. */
  notThese = $state<string[]>([]);
  /** The colleague it is to be like, and what is copied; it counts as long as that is the way. */
  like = $state<{ id: string; name: string; parts: string[] }>();
  backDated = $state(false);
  /** Whether a stint beside another of the person is meant. */
  secondStint = $state(false);
  candidate = $state<string>();
  /** The reason that is kept with it: pay outside its band needs one. */
  why = $state('');
  /** What fields hold, where that is not text. */
  #types: Record<string, Api['FieldResponse']['type']> = { pay_rate: 'money' };

  get start() {
    return this.#start;
  }

  /** The first day. One in the past is meant anew each time it is changed. */
  set start(day: string | null) {
    if (day !== this.#start) this.backDated = false;
    this.#start = day;
  }

  /** Whether enough is known to work out what the hire would start with: a colleague alone says what they were hired as. */
  get canBeWorkedOut() {
    return this.template !== '' || this.colleague !== null;
  }

  get colleague(): Api['LikeColleague'] | null {
    return this.way === 'like' && this.like?.id ? { employment: this.like.id, parts: this.like.parts } : null;
  }

  set(field: string, value: string, type?: Api['FieldResponse']['type']) {
    if (type) this.#types[field] = type;
    if (value === '') delete this.typed[field];
    else this.typed[field] = value;
  }

  /** What was typed, as it is sent. */
  get typedValues(): Record<string, Value> {
    return Object.fromEntries(
      Object.entries(this.typed)
        .filter(([, v]) => v.trim() !== '')
        .map(([field, v]) => [field, valueOf({ type: this.#types[field] ?? 'text' }, v)])
    );
  }

  get request(): Api['NewHireRequest'] {
    return {
      id: this.id,
      template: this.template,
      start: this.start,
      typed: this.typedValues as Api['NewHireRequest']['typed'],
      person: this.person?.id ?? null,
      reuse: this.reuse,
      like: this.colleague,
      backDated: this.backDated,
      secondStint: this.secondStint,
      notThese: this.notThese,
      candidate: this.candidate ?? null,
      why: this.why.trim() === '' ? null : this.why.trim()
    };
  }

  /** How many entries that took. */
  get count() {
    return Object.keys(this.typedValues).length + (this.template ? 1 : 0) + (this.start ? 1 : 0);
  }

  /** Makes it a new stint of somebody the firm knows. */
  isOf(person: Api['KnownPerson']) {
    this.person = { id: person.personId, name: fullName(person) };
    this.reuse = person.reusable.map((r) => r.field);
    this.secondStint = false;
    // Written as the firm has it: a slip in what was typed is no change of name.
    this.typed.given_name = person.givenName;
    this.typed.family_name = person.familyName;
  }

  /** Begins anew from what recruiting says of a candidate. */
  from(candidate: Api['CandidateResponse']) {
    this.clear();
    const c = candidate.candidate;
    this.candidate = candidate.id;
    this.template = candidate.template ?? '';
    this.start = c.start;
    for (const [field, value] of Object.entries({
      given_name: c.givenName,
      family_name: c.familyName,
      email: c.email,
      birth_date: c.birthDate,
      phone: c.phone,
      site: candidate.siteCode
    }))
      if (value) this.typed[field] = value;
  }

  clear() {
    this.way = 'template';
    this.id = crypto.randomUUID();
    this.template = '';
    this.start = null;
    this.typed = empty();
    this.person = undefined;
    this.reuse = [];
    this.notThese = [];
    this.like = undefined;
    this.backDated = false;
    this.secondStint = false;
    this.candidate = undefined;
    this.why = '';
  }
}

export const draft = new Draft();

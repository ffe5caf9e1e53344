import { decimal } from '$lib/text/decimal';
import { api, ApiProblem, data, type Api, type ProblemEntry } from '$lib/api/client';
import { isNumeric, valueOf, typedOf, type Value } from '$lib/text/typed';
import { addressIn, allFields, cellsOf, fieldAt, rowIn, rowsIn } from './rows';

type RecordResponse = Api['RecordResponse'];
type Field = Api['FieldResponse'];

/** What is being changed in a record, until it is saved or discarded. */
export class Editing {
  /** New values by field, or address in a row, as typed: several choices on lines of their own, yes and no as words; an empty text empties the field. */
  changes = $state<Record<string, string>>({});
  errors = $state<ProblemEntry[]>([]);
  /** What somebody else saved meanwhile. */
  stale = $state<RecordResponse>();
  busy = $state(false);
  /** The day from which the changes hold; null where they put mistakes right. */
  from = $state<string | null>(null);
  /** Whether it was said which of the two they are. */
  said = $state(false);
  /** Whether saving waits for it to be said. */
  asking = $state(false);
  why = $state('');
  /** Of what is changed, what can be saved without anybody, where others have to agree to the rest. */
  direct = $state<string[]>([]);
  /** The row that is open for changing, by the key of its field and its id. */
  opened = $state<string>();
  /** The record as it was when the first change was typed. */
  #base: RecordResponse | undefined;

  get count() {
    return Object.keys(this.changes).length;
  }

  set(record: RecordResponse, field: Field, value: string) {
    this.#base ??= record;
    const same = value.trim() === typedOf(field) || (isNumeric(field) && field.value != null && decimal(value) === Number(field.value));
    // A row that is not saved yet is there as long as it has something, be it nothing.
    const last = rowIn(field.key) !== undefined && Object.keys(this.changes).filter((a) => rowIn(a) === rowIn(field.key)).length <= 1;
    const fresh = last && cellsOf(record, rowsIn(field.key), rowIn(field.key)!).length === 0;
    if (same && !fresh) delete this.changes[field.key];
    else this.changes[field.key] = value;
    this.errors = this.errors.filter((e) => e.pointer !== `/changes/${field.key}`);
    if (this.count === 0) this.#base = undefined;
    this.asking = false;
  }

  /** Whether something that had a value gets another: only then it matters whether it was wrong or becomes different. */
  get overwrites() {
    return this.#base !== undefined && this.#changed(this.#base).some((f) => f.value !== null && f.value !== undefined);
  }

  /** Whether the changes rather hold from a day on than put mistakes right: of somebody who is here, what changes over time does. */
  get likelyFrom() {
    const base = this.#base;
    if (!base || base.asOf > base.today) return false;
    return this.#changed(base).some((f) => f.changesOverTime && f.value !== null && f.value !== undefined);
  }

  // What is changed, with all that stands in rows that go.
  #changed = (record: RecordResponse) =>
    Object.keys(this.changes).flatMap((address) => {
      const field = fieldAt(record, address);
      return field ? [field] : cellsOf(record, rowsIn(address), rowIn(address) ?? '');
    });

  /** Begins a row: with one of its columns, empty. */
  begin(record: RecordResponse, address: string) {
    this.#base ??= record;
    this.changes[address] = '';
    this.asking = false;
  }

  /** Takes a row away: one that is not saved yet at once, another when it is saved. */
  takeAway(record: RecordResponse, rows: string, row: string) {
    this.#base ??= record;
    for (const address of Object.keys(this.changes)) if (rowIn(address) === row && rowsIn(address) === rows) delete this.changes[address];
    if (cellsOf(record, rows, row).length > 0) this.changes[addressIn(rows, row)] = '';
    this.errors = this.errors.filter((e) => !e.pointer.endsWith(`@${row}`));
    if (this.count === 0) this.#base = undefined;
    this.asking = false;
  }

  /** Leaves a row where it is after all. */
  putBack(rows: string, row: string) {
    delete this.changes[addressIn(rows, row)];
    if (this.count === 0) this.#base = undefined;
  }

  /** Says which it is: from a day, or null for mistakes. */
  say(from: string | null) {
    this.from = from;
    this.said = true;
    this.asking = false;
  }

  /** The changes as they are sent. */
  sent(record: RecordResponse): Record<string, Value> {
    return Object.fromEntries(Object.entries(this.changes).map(([key, typed]) => [key, valueOf(fieldAt(record, key), typed)]));
  }

  /** What is typed, with the record it was begun from, for keeping; nothing sensitive. */
  get typed(): Typed | undefined {
    if (!this.#base) return undefined;
    const base = this.#base;
    const changes = Object.fromEntries(Object.entries(this.changes).filter(([key]) => !fieldAt(base, key)?.sensitive));
    return Object.keys(changes).length === 0 ? undefined : { changes, from: this.from, said: this.said, why: this.why, base };
  }

  /** Goes on from what was kept. Its base is the record of then: what others saved since shows as such when it is saved. */
  resume(typed: Typed) {
    this.changes = typed.changes;
    this.from = typed.from;
    this.said = typed.said;
    this.why = typed.why;
    this.#base = typed.base;
  }

  discard() {
    this.changes = {};
    this.errors = [];
    this.stale = undefined;
    this.from = null;
    this.said = this.asking = false;
    this.why = '';
    this.opened = undefined;
    this.direct = [];
    this.#base = undefined;
  }

  /** The saved record; undefined when it was refused or has changed meanwhile, which then shows. Other failures are thrown. */
  async save(record: RecordResponse): Promise<RecordResponse | undefined> {
    this.busy = true;
    try {
      const saved = await data(
        api.PUT('/api/records/{id}', {
          params: { path: { id: record.employmentId } },
          body: { changes: this.sent(record), from: this.from, why: this.why.trim() || null },
          headers: { 'If-Match': (this.#base ?? record).version }
        })
      );
      this.discard();
      return saved;
    } catch (e) {
      if (e instanceof ApiProblem && e.status === 412) this.stale = e.current as RecordResponse;
      else if (e instanceof ApiProblem && e.errors.length > 0) this.errors = e.errors;
      else throw e;
      return undefined;
    } finally {
      this.busy = false;
    }
  }

  /** Whether others have to agree to what is changed: as the fields say, or as the server said when it was to be saved. */
  needsAsking(record: RecordResponse) {
    return (
      Object.keys(this.changes).some((address) => fieldAt(record, address)?.access === 'ask') ||
      this.errors.some((e) => e.code === 'needs-approval')
    );
  }

  /** Asks for what is changed, once what needs nobody is saved; undefined when it was refused, which then shows. Other failures are thrown. */
  async ask(record: RecordResponse, direct: string[]): Promise<Api['RequestResponse'] | undefined> {
    this.busy = true;
    const version = (this.#base ?? record).version;
    try {
      const sent = this.sent(record);
      const own = Object.fromEntries(Object.entries(sent).filter(([address]) => direct.includes(address)));
      const params = { path: { id: record.employmentId } };
      const why = this.why.trim() || null;
      let now = version;
      if (Object.keys(own).length > 0) {
        const body = { changes: own, from: this.from, why };
        this.#base = await data(api.PUT('/api/records/{id}', { params, body, headers: { 'If-Match': version } }));
        now = this.#base.version;
        for (const address of direct) delete this.changes[address];
      }
      const asked = await data(
        api.POST('/api/records/{id}/requests', {
          params,
          body: { changes: this.sent(record), from: this.from, why },
          headers: { 'If-Match': now }
        })
      );
      this.discard();
      return asked;
    } catch (e) {
      if (e instanceof ApiProblem && e.status === 412) this.stale = e.current as RecordResponse;
      else if (e instanceof ApiProblem && e.errors.length > 0) this.errors = e.errors;
      else throw e;
      return undefined;
    } finally {
      this.busy = false;
    }
  }

  /** The fields both changed: theirs and ours. What only we changed goes on as it is. */
  conflicts(): { field: Field; theirs: string; ours: string }[] {
    if (!this.stale || !this.#base) return [];
    const before = Object.fromEntries(allFields(this.#base).map((f) => [f.key, typedOf(f)]));
    return allFields(this.stale)
      .filter((f) => f.key in this.changes && typedOf(f) !== before[f.key])
      .map((f) => ({ field: f, theirs: f.display ?? typedOf(f), ours: this.changes[f.key]! }));
  }

  /** Goes on from what the other saved, keeping our value only where it was chosen. */
  resolve(keepOurs: Record<string, boolean>): RecordResponse {
    const now = this.stale!;
    for (const { field } of this.conflicts()) if (!keepOurs[field.key]) delete this.changes[field.key];
    this.#base = this.count > 0 ? now : undefined;
    this.stale = undefined;
    return now;
  }
}

/** What is typed and not saved. */
export interface Typed {
  changes: Record<string, string>;
  from: string | null;
  said: boolean;
  why: string;
  /** The record as it was when the first change was typed. */
  base: RecordResponse;
}

/** A value of a field as JSON. */

import { api, ApiProblem, data, type Api, type ProblemEntry } from '$lib/api/client';

type Values = Record<string, unknown>;

const isEmpty = (value: unknown) => value === null || value === undefined || value === '' || (Array.isArray(value) && value.length === 0);

/** An entry of a list while it is edited: what was there, what is changed, and what is wrong with it. */
export class EntryEditing {
  code = $state('');
  name = $state('');
  nameDe = $state('');
  values = $state<Values>({});
  errors = $state<ProblemEntry[]>([]);
  busy = $state(false);
  /** What somebody else saved meanwhile. */
  theirs = $state<Api['EntryResponse']>();
  #there = $state<Api['EntryResponse']>();

  constructor(
    readonly list: Api['ListSummary'],
    entry?: Api['EntryResponse'],
    name = ''
  ) {
    if (entry) this.take(entry);
    else {
      this.name = name;
      this.code = '';
      for (const column of list.columns) if (column.default !== null) this.values[column.key] = startingValue(column);
    }
  }

  get isNew() {
    return this.#there === undefined;
  }
  get there() {
    return this.#there;
  }

  /** Begins from an entry as the server has it. */
  take(entry: Api['EntryResponse']) {
    this.#there = entry;
    this.code = entry.code;
    this.name = entry.name;
    this.nameDe = entry.nameDe ?? '';
    this.values = JSON.parse(JSON.stringify(entry.values)) as Values;
    this.errors = [];
    this.theirs = undefined;
  }

  get request(): Api['EntryRequest'] {
    const values: Values = {};
    for (const [key, value] of Object.entries(this.values)) if (!isEmpty(value)) values[key] = value;
    return { code: this.code, name: this.name, nameDe: this.nameDe || null, values };
  }

  /** Keys of what is changed. */
  get changed(): string[] {
    const there = this.#there;
    if (!there) return ['code'];
    const keys = this.list.columns.filter(
      (c) =>
        !(isEmpty(this.values[c.key]) && isEmpty(there.values[c.key])) &&
        JSON.stringify(this.values[c.key]) !== JSON.stringify(there.values[c.key])
    );
    return [
      ...(this.name === there.name ? [] : ['name']),
      ...(this.nameDe === (there.nameDe ?? '') ? [] : ['nameDe']),
      ...keys.map((c) => c.key)
    ];
  }

  error(key: string): ProblemEntry | undefined {
    const pointer = ['code', 'name', 'nameDe'].includes(key) ? `/${key}` : `/values/${key}`;
    return this.errors.find((e) => e.pointer === pointer);
  }

  set(key: string, value: unknown) {
    this.values[key] = value;
    this.errors = this.errors.filter((e) => e.pointer !== `/values/${key}`);
  }

  /** Saves; answers the entry, or nothing where something is wrong, which is then in errors. */
  async save(): Promise<Api['EntryResponse'] | undefined> {
    this.busy = true;
    this.errors = [];
    try {
      const path = { list: this.list.key };
      const saved = this.#there
        ? await data(
            api.PUT('/api/lists/{list}/entries/{code}', {
              params: { path: { ...path, code: this.#there.code } },
              headers: { 'If-Match': (this.theirs ?? this.#there).version },
              body: this.request
            })
          )
        : await data(api.POST('/api/lists/{list}/entries', { params: { path }, body: this.request }));
      this.take(saved);
      return saved;
    } catch (e) {
      if (!(e instanceof ApiProblem)) throw e;
      if (e.status === 412) this.theirs = e.current as Api['EntryResponse'];
      this.errors = e.errors.length > 0 ? e.errors : [{ pointer: '', code: e.code, detail: e.message }];
      return undefined;
    } finally {
      this.busy = false;
    }
  }
}

/** A column's usual value, which the definition holds as text. */
function startingValue(column: Api['ColumnResponse']): unknown {
  if (column.type === 'whole' || column.type === 'number') return Number(column.default);
  if (column.type === 'yesNo') return column.default === 'yes';
  return column.default;
}

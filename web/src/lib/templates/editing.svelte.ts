import { api, data, type Api } from '$lib/api/client';
import { ServerDraft } from '$lib/api/serverDraft.svelte';
import { clausesOf } from '$lib/fields/clauses';
import { blank, entriesOf, withEntries, withEntry, workedName, type Entry, type Example, type Spec } from './spec';

type Draft = Api['TemplateDraftResponse'];

/** A template being edited, and what a hire would get from it, worked out anew with every change. */
export class TemplateEditing extends ServerDraft<Spec, Draft> {
  example = $state.raw<Example>();
  /** What the example is for. */
  facts = $state<Record<string, unknown>>({});
  start = $state<string | null>(null);
  use = $state('');
  #looked = 0;

  constructor(readonly code: string) {
    super(blank('', false));
  }

  get spec() {
    return this.content;
  }

  take(template: Api['TemplateResponse']) {
    this.begin(template.draft, template.live!);
    void this.look();
  }

  override put(spec: Spec): Promise<void> {
    const saved = super.put(spec);
    void this.look();
    return saved;
  }

  protected save(spec: Spec, headers: { 'If-Match'?: string }) {
    return data(api.PUT('/api/templates/{code}/draft', { params: { path: { code: this.code } }, body: { spec }, headers }));
  }

  protected contentOf(draft: Draft) {
    return draft.spec;
  }

  /** What the example calls its tasks and messages, by key. */
  get names(): Record<string, string> {
    const named = (this.example?.entries ?? []).map(
      (e) => [e.key, e.list === 'tasks' ? workedName(e) : String(e.properties.name?.value ?? e.properties.subject?.value ?? '')] as const
    );
    return Object.fromEntries(named.filter(([, name]) => name));
  }

  /** Sets a value; undefined takes it away. */
  setValue(field: string, value: unknown) {
    const values = { ...this.spec.values } as Record<string, unknown>;
    if (value === undefined) delete values[field];
    else values[field] = value;
    void this.put({ ...this.spec, values: values as Spec['values'] });
  }

  /** Whether an entry is this template's own, rather than one of a lower layer that it changes. */
  isOwn(list: string, key: string) {
    const shown = this.example?.entries.find((e) => e.list === list && e.key === key);
    const from = shown && Object.values(shown.properties).map((p) => p.displaced.at(-1)?.from ?? p.from);
    return !from || from.length === 0 || from.every((f) => f.includes(`:${this.code}@`));
  }

  setEntry(list: string, key: string, change: Partial<Entry>) {
    const there = entriesOf(this.spec, list).find((e) => e.key === key) ?? { key, properties: {}, drop: false, shared: null };
    void this.put(withEntry(this.spec, list, { ...there, ...change }, this.isOwn(list, key)));
  }

  /** Sets a property of an entry; undefined leaves it to the layers below. */
  setProperty(list: string, key: string, name: string, value: unknown) {
    const properties = { ...(entriesOf(this.spec, list).find((e) => e.key === key)?.properties ?? {}) } as Record<string, unknown>;
    if (value === undefined) delete properties[name];
    else properties[name] = value;
    this.setEntry(list, key, { properties: properties as Entry['properties'] });
  }

  add(list: string, entries: Entry[]) {
    const keys = entries.map((e) => e.key);
    void this.put(withEntries(this.spec, list, [...entriesOf(this.spec, list).filter((e) => !keys.includes(e.key)), ...entries]));
  }

  remove(list: string, key: string) {
    void this.put(
      withEntries(
        this.spec,
        list,
        entriesOf(this.spec, list).filter((e) => e.key !== key)
      )
    );
  }

  /** Moves one of its own entries so that it stands before another of its own; to the end without one. */
  move(list: string, key: string, before: string | undefined) {
    const all = entriesOf(this.spec, list);
    const entry = all.find((e) => e.key === key);
    if (!entry || key === before) return;
    const rest = all.filter((e) => e.key !== key);
    const at = before === undefined ? rest.length : rest.findIndex((e) => e.key === before);
    if (at >= 0) void this.put(withEntries(this.spec, list, [...rest.slice(0, at), entry, ...rest.slice(at)]));
  }

  /** What makes an add-on apply to the example, where its condition is of plain choices. */
  #fitting(): Record<string, string> {
    const clauses = (this.spec.addOn && clausesOf(this.spec.when)) || [];
    return Object.fromEntries(clauses.filter((c) => c.values.length > 0).map((c) => [c.field, c.values[0]!]));
  }

  /** Works out what a hire would get from the template as it stands. */
  async look() {
    const mine = ++this.#looked;
    const example = await data(
      api.POST('/api/templates/{code}/example', {
        params: { path: { code: this.code } },
        body: {
          spec: this.spec,
          use: this.use || null,
          facts: { ...this.#fitting(), ...this.facts } as Record<string, never>,
          start: this.start
        }
      })
    );
    if (mine === this.#looked) this.example = example;
  }
}

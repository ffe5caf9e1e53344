import type { Api } from '$lib/api/client';
import { named } from '$lib/text/named';

export type Spec = Api['TemplateSpec'];
export type Entry = Api['TemplateEntry'];
export type Example = Api['TemplateExample'];
export type Json = unknown;

/** The lists a template has besides its values, in the order they are shown. */
export const lists = ['tasks', 'items', 'documents', 'certificates', 'secondJobs', 'welcome'] as const;
export type ListName = (typeof lists)[number];
export type Part = 'values' | ListName | 'about';

/** The list of the firm whose codes are the keys of a part's entries. */
export const keyedBy: Partial<Record<string, string>> = {
  items: 'items',
  documents: 'documentKinds',
  certificates: 'certificates',
  secondJobs: 'jobs'
};

export const blank = (name: string, addOn: boolean, occasion: Api['Occasion'] = 'arrival'): Spec => ({
  name,
  addOn,
  buildsOn: null,
  when: null,
  order: 0,
  opens: !addOn,
  values: {},
  lists: {},
  occasion
});

export const formulaOf = (value: Json): string | undefined =>
  typeof value === 'object' && value !== null && !Array.isArray(value) && Object.keys(value).length === 1 && 'formula' in value
    ? String(value.formula)
    : undefined;

export const entriesOf = (spec: Spec, list: string): Entry[] => (spec.lists as Record<string, Entry[]>)[list] ?? [];

export const entryOf = (spec: Spec, list: string, key: string) => entriesOf(spec, list).find((e) => e.key === key);

export const withEntries = (spec: Spec, list: string, entries: Entry[]): Spec => ({ ...spec, lists: { ...spec.lists, [list]: entries } });

/** With what a template says of an entry put in its place; nothing said where it says nothing any more. */
export function withEntry(spec: Spec, list: string, entry: Entry, keep: boolean): Spec {
  const all = entriesOf(spec, list);
  const says = keep || entry.drop || Object.keys(entry.properties).length > 0;
  const next = all.some((e) => e.key === entry.key)
    ? all.flatMap((e) => (e.key !== entry.key ? [e] : says ? [entry] : []))
    : says
      ? [...all, entry]
      : all;
  return withEntries(spec, list, next);
}

/** A key made of a name, that none of these has. */
export function keyFrom(name: string, taken: string[]): string {
  const plain =
    name
      .normalize('NFKD')
      .replace(/\p{M}/gu, '')
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 36) || 'new';
  let key = plain;
  for (let i = 2; taken.includes(key); i++) key = `${plain}-${i}`;
  return key;
}

/** Which code a layer's id names. */
export const codeOf = (layer: string) => layer.slice(layer.indexOf(':') + 1, layer.lastIndexOf('@'));

const said = (value: unknown) => (typeof value === 'string' && value !== '' ? value : undefined);

/** What a task is called in the reader's language; its key while it has no name. */
export const taskName = (key: string, properties: Record<string, unknown>) =>
  named({ name: said(properties.name) ?? key, nameDe: said(properties.nameDe) });

/** The same of a task that layers came to. */
export const workedName = (task: Api['ExampleEntry']) =>
  taskName(task.key, { name: task.properties.name?.value, nameDe: task.properties.nameDe?.value });

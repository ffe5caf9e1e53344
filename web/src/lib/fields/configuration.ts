import type { Api } from '$lib/api/client';

/** What a record holds, as the published JSON Schema (/api/fields/schema.json) has it. */
export interface Configuration {
  sections: { key: string; label: Names }[];
  fields: Field[];
  /** Who has to agree to which changes, in order. */
  approvals?: Approval[];
}

export interface Approval {
  id: string;
  label?: Names;
  fields: string[];
  when?: string;
  /** "manager", "manager2", "role:" and a role, "person:" and an employment. */
  by: string[];
}

export type Names = Record<string, string>;
export type Access = 'edit' | 'ask' | 'view' | 'none';
export type FieldType = Api['FieldResponse']['type'];
export type FileGroup = Api['FileGroup'];

export const fileGroups: FileGroup[] = ['picture', 'pdf', 'document'];

export interface Field {
  key: string;
  label?: Names;
  section?: string;
  type: FieldType;
  of?: 'person' | 'employment';
  options?: Option[];
  list?: string;
  parent?: string;
  required?: 'never' | 'always' | { from: string };
  requiredWhen?: string;
  access?: Record<string, Access>;
  default?: { value: unknown } | { formula: string };
  pattern?: string;
  min?: number | string;
  max?: number | string;
  unique?: boolean;
  onChange?: { set: string; formula: string }[];
  showWhen?: string;
  sensitive?: boolean;
  /** For a file, the groups it may belong to; left out for any. */
  accepts?: FileGroup[];
  /** For rows, the columns: fields of their own. */
  columns?: Field[];
  /** For rows, the column that says what a row is about. */
  rowKey?: string;
  /** For rows that hold for a time, the columns with the first and the last day. */
  dates?: { from: string; until: string };
}

export interface Option {
  value: string;
  label?: Names;
  retired?: boolean;
  within?: string[];
}

export const types: FieldType[] = [
  'text',
  'longText',
  'number',
  'money',
  'date',
  'yesNo',
  'choice',
  'choices',
  'listEntry',
  'person',
  'email',
  'phone',
  'file',
  'identifier',
  'iban',
  'computed',
  'rows'
];

export const nameOf = (named: { label?: Names; key: string }, language: string) => named.label?.[language] || named.label?.en || named.key;

/** What a role may do with a field: what is worked out is edited by nobody. */
export function accessTo(field: Field, role: string): Access {
  const access = field.access?.[role] ?? 'none';
  return field.type === 'computed' && (access === 'edit' || access === 'ask') ? 'view' : access;
}

/** A copy in which nothing stands that says nothing, so that an untouched field stays as it was. */
export function tidy(field: Field): Field {
  const entries = Object.entries(field).filter(
    ([, v]) => v !== undefined && v !== '' && v !== false && !(Array.isArray(v) && v.length === 0)
  );
  return Object.fromEntries(entries) as unknown as Field;
}

/** A key made of a label, that nothing else has. */
export function keyFrom(label: string, taken: { key: string }[]): string {
  const plain =
    label
      .normalize('NFKD')
      .replace(/\p{M}/gu, '')
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '_')
      .replace(/^(?=[0-9])/, 'n')
      .replace(/^_+|_+$/g, '') || 'field';
  let key = plain;
  for (let i = 2; taken.some((f) => f.key === key); i++) key = `${plain}_${i}`;
  return key;
}

/** Moves a field so that it stands before another, in that one's section; to the end of a section without one. */
export function moved(fields: Field[], key: string, before: string | undefined, section: string): Field[] {
  const field = { ...fields.find((f) => f.key === key)!, section };
  const rest = fields.filter((f) => f.key !== key);
  const last = rest.findLastIndex((f) => f.section === section);
  const at = before === undefined ? (last < 0 ? rest.length : last + 1) : rest.findIndex((f) => f.key === before);
  return [...rest.slice(0, at), field, ...rest.slice(at)];
}

/** A copy of fields, each with a key and a label of its own. */
export function copies(of: Field[], fields: Field[], section: string | undefined, copied: (label: string) => string): Field[] {
  const made: Field[] = [];
  for (const field of of) {
    const label = Object.fromEntries(Object.entries(field.label ?? {}).map(([language, l]) => [language, section ? l : copied(l)]));
    made.push({ ...field, key: keyFrom(field.key.replace(/_\d+$/, ''), [...fields, ...made]), label, section: section ?? field.section });
  }
  return made;
}

/** A configuration with a section moved one place up or down. */
export function sectionMoved(configuration: Configuration, key: string, by: number): Configuration {
  const sections = [...configuration.sections];
  const at = sections.findIndex((s) => s.key === key);
  if (at < 0 || at + by < 0 || at + by >= sections.length) return configuration;
  const [taken] = sections.splice(at, 1);
  sections.splice(at + by, 0, taken!);
  return { ...configuration, sections };
}

/** A configuration in which a new field goes by another key: whatever of the draft names it goes along. */
export function renamed(configuration: Configuration, from: string, to: string): Configuration {
  const word = new RegExp(`\\b${from}\\b`, 'g');
  const inFormula = (formula: string) =>
    formula.replace(/'(?:[^'\\]|\\.)*'|[^']+/g, (part) => (part.startsWith("'") ? part : part.replace(word, to)));
  const fields = configuration.fields.map((f) => ({
    ...f,
    key: f.key === from ? to : f.key,
    ...(f.parent === from ? { parent: to } : {}),
    ...(f.requiredWhen ? { requiredWhen: inFormula(f.requiredWhen) } : {}),
    ...(f.showWhen ? { showWhen: inFormula(f.showWhen) } : {}),
    ...(f.default && 'formula' in f.default ? { default: { formula: inFormula(f.default.formula) } } : {}),
    ...(f.onChange ? { onChange: f.onChange.map((r) => ({ set: r.set === from ? to : r.set, formula: inFormula(r.formula) })) } : {})
  }));
  return { ...configuration, fields };
}

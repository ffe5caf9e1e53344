import type { Api } from '$lib/api/client';

/** Whom a right reaches. */
export type Reach = 'all' | 'self' | 'direct' | 'reports' | 'tasks' | { site: string } | { department: string } | { group: string };

/** What may be done, with what, and to whom. */
export interface Right {
  do: string;
  on: string;
  reach: Reach;
}

export interface Role {
  id: string;
  label: Record<string, string>;
  /** Whom its part in the fields' own settings reaches. */
  fields: Reach[];
  rights: Right[];
}

export interface Group {
  id: string;
  label: Record<string, string>;
  when: string;
  /** Roles its people have by rule. */
  roles?: string[];
}

/** The firm's own roles and groups, as the JSON Schema has them. */
export interface Configuration {
  roles: Role[];
  groups: Group[];
  /** Roles, shipped ones too, whose holders prove by a second factor who they are. */
  secondFactor?: string[];
}

/** A reach as one word, to be chosen and compared by. */
export const keyOf = (reach: Reach): string =>
  typeof reach === 'string' ? reach : Object.entries(reach).map(([kind, code]) => `${kind}:${code}`)[0]!;

/** The reach that a word stands for. */
export function reachOf(key: string): Reach {
  const at = key.indexOf(':');
  return at < 0 ? (key as Reach) : ({ [key.slice(0, at)]: key.slice(at + 1) } as Reach);
}

/** A reach as the server tells it. */
export const toldReach = (reach: Api['ReachResponse']): Reach =>
  reach.code === null ? (reach.kind as Reach) : ({ [reach.kind]: reach.code } as Reach);

/** A role as the server tells it. */
export const toldRole = (role: Api['RoleResponse']): Role => ({
  id: role.id,
  label: { en: role.label.en, de: role.label.de },
  fields: role.fields.map(toldReach),
  rights: role.rights.map((r) => ({ do: r.do, on: r.on, reach: toldReach(r.reach) }))
});

/** What a role gives of a right to a thing: the reaches by which, none where it does not. */
export const givenOf = (role: Role, right: { do: string; on: string }): Reach[] =>
  role.rights
    .filter((r) => (r.on === right.on || r.on === '*') && (r.do === right.do || (right.do === 'see' && r.do === 'edit')))
    .map((r) => r.reach);

/** What one role gives that another does not, also what the fields themselves give to it. */
export function onlyIn(role: Role, other: Role): Right[] {
  const all = (r: Role): Right[] => [...r.fields.map((reach) => ({ do: 'as-set', on: r.id, reach })), ...r.rights];
  const covers = (by: Right, right: Right) =>
    (by.do === right.do || (right.do === 'see' && (by.do === 'edit' || by.do === 'ask'))) &&
    (by.on === right.on || by.on === '*') &&
    (by.reach === 'all' || keyOf(by.reach) === keyOf(right.reach));
  return all(role).filter((right) => !all(other).some((by) => covers(by, right)));
}

/** What a role gives of a section: how many of its fields are seen and edited, by the fields' own settings or by a right. */
export function givenOfSection(role: Role, section: Api['RoleSection']) {
  const has = (action: string, key: string) =>
    role.rights.some(
      (r) =>
        (r.do === action || (action === 'see' && (r.do === 'edit' || r.do === 'ask'))) &&
        (r.on === '*' || r.on === `section:${section.key}` || r.on === key)
    );
  let [seen, edited] = [0, 0];
  for (const field of section.fields) {
    const own = role.fields.length > 0 ? field.access[role.id] : undefined;
    if (own === 'edit' || has('edit', field.key)) edited++;
    if (own !== undefined || has('see', field.key)) seen++;
  }
  return { of: section.fields.length, seen, edited };
}

/** An id made of a name, that none of others has. */
export function idFrom(name: string, taken: string[]): string {
  const plain = name
    .normalize('NFD')
    .toLowerCase()
    .replace(/ß/g, 'ss')
    .replace(/\p{M}/gu, '')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^[^a-z]+|-+$/g, '')
    .slice(0, 36);
  const base = plain === '' ? 'role' : plain;
  let id = base;
  for (let i = 2; taken.includes(id); i++) id = `${base}-${i}`;
  return id;
}

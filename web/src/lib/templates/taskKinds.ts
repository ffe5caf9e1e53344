import type { Api } from '$lib/api/client';

/** What kind of thing a task asks for. */
export type TaskKind = Api['TaskKind'];

/** The kinds in the order in which they are offered. */
export const taskKinds: TaskKind[] = [
  'toDo',
  'fill',
  'check',
  'issue',
  'return',
  'certify',
  'read',
  'acknowledge',
  'sign',
  'upload',
  'watch',
  'attend',
  'steps',
  'run',
  'enrol',
  'firstPunch',
  'ask'
];

/** What a task of a kind names: fields of the record, or entries of one of the firm's lists; nothing where it is about nothing. */
export function aboutOf(kind: TaskKind): 'fields' | 'items' | 'certificates' | undefined {
  if (kind === 'fill' || kind === 'check') return 'fields';
  if (kind === 'issue' || kind === 'return') return 'items';
  return kind === 'certify' ? 'certificates' : undefined;
}

/** Whether the record says if such a task is done. */
export const completesItself = (kind: TaskKind) => kind === 'fill' || kind === 'issue' || kind === 'return' || kind === 'certify';

/** The kind that the properties of a task name. */
export const kindOf = (properties: Record<string, unknown>): TaskKind => taskKinds.find((k) => k === properties.kind) ?? 'toDo';

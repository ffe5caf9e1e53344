import type { Api } from '$lib/api/client';
import { decimal } from './decimal';

type Field = Api['FieldResponse'];

/** A value as the server takes it. */
export type Value = string | number | boolean | string[] | null;

export const isNumeric = (field: { type: Field['type'] }) => field.type === 'money' || field.type === 'number';

/** What was typed, as the field holds it. */
export function valueOf(field: { type: Field['type'] } | undefined, typed: string): Value {
  if (typed.trim() === '') return null;
  if (field && isNumeric(field)) return decimal(typed) ?? typed;
  if (field?.type === 'yesNo') return typed === 'yes';
  if (field?.type === 'choices') return typed.split('\n');
  return typed;
}

/** A stored value as one would type it; money with the minor unit's decimals at least. */
export function typedOf(field: { type: Field['type']; value?: unknown }): string {
  if (field.value === null || field.value === undefined) return '';
  if (typeof field.value === 'boolean') return field.value ? 'yes' : 'no';
  if (Array.isArray(field.value)) return field.value.join('\n');
  if (field.type !== 'money') return String(field.value);
  const decimals = String(field.value).split('.')[1]?.length ?? 0;
  return Number(field.value).toFixed(Math.max(2, decimals));
}

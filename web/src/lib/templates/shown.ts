import type { Api } from '$lib/api/client';
import { text } from '$lib/text/index.svelte';
import { words } from './words';

/** A value as people read it. */
export function shownJson(value: unknown, field?: Api['FieldResponse'], display?: string | null): string {
  if (display) return display;
  if (value === null || value === undefined || value === '') return words().value.isEmpty;
  if (typeof value === 'boolean') return value ? words().value.yes : words().value.no;
  if (typeof value === 'number') return field?.type === 'money' ? text.money(value) : text.number(value);
  if (Array.isArray(value)) return value.map((v) => shownJson(v, field)).join(', ');
  if (typeof value === 'object') return 'formula' in value ? String(value.formula) : JSON.stringify(value);
  const word = String(value);
  if (field?.options) return field.options.find((o) => o.value === word)?.label[text.language] ?? word;
  return /^\d{4}-\d\d-\d\d$/.test(word) ? text.day(word) : word;
}

interface Offset {
  anchor: string;
  offset: number;
  unit: string;
}

/** "5 working days before the start"; by what the template is for, also "before the last day". */
export function offsetWords(value: unknown, occasion: Api['Occasion'] = 'arrival'): string | undefined {
  if (typeof value !== 'object' || value === null || !('anchor' in value)) return undefined;
  const { anchor, offset, unit } = value as Offset;
  const o = words().offset;
  const from = o.anchor[occasion]?.[anchor] ?? anchor;
  const n = Math.abs(offset);
  const of = (n === 1 ? o.one[unit] : o.unit[unit]) ?? unit;
  return offset === 0 ? o.at(from) : offset < 0 ? o.before(n, of, from) : o.later(n, of, from);
}

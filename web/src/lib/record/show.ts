import type { Api } from '$lib/api/client';
import { text } from '$lib/text/index.svelte';

/** A typed value as people read it: list entries and options by name, dates in full. */
export function shownValue(field: Api['FieldResponse'], value: string, lists: Api['ListOption'][]): string {
  if (value.trim() === '') return text.t.record.empty;
  if (field.options) return field.options.find((o) => o.value === value)?.label[text.language] ?? value;
  if (field.list) return lists.find((o) => o.list === field.list && o.code === value)?.name ?? value;
  if (field.type === 'date' && /^\d{4}-\d\d-\d\d$/.test(value)) return text.day(value);
  return value;
}

import type { Api } from '$lib/api/client';
import { nameOf } from '$lib/lists/queries';
import { inFours } from '$lib/text/inFours';
import { text } from '$lib/text/index.svelte';

type Shown = Pick<Api['FieldResponse'], 'type' | 'options' | 'list'>;

/** A typed value as people read it: list entries and options by name, dates in full. */
export function shownValue(field: Shown, value: string, lists: Api['ListOption'][]): string {
  if (value.trim() === '') return text.t.common.empty;
  if (field.type === 'choices')
    return value
      .split('\n')
      .map((one) => shownOne(field, one, lists))
      .join(', ');
  return shownOne(field, value, lists);
}

function shownOne(field: Shown, value: string, lists: Api['ListOption'][]): string {
  if (field.type === 'yesNo') return value === 'yes' ? text.t.common.yes : text.t.common.no;
  if (field.options) return field.options.find((o) => o.value === value)?.label[text.language] ?? value;
  if (field.list) return nameOf(lists, field.list, value);
  if (field.type === 'date' && /^\d{4}-\d\d-\d\d$/.test(value)) return text.day(value);
  if (field.type === 'iban') return inFours(value);
  return value;
}

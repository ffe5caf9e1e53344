import type { Api } from '$lib/api/client';
import { shownValue } from '$lib/record/show';
import { text } from '$lib/text/index.svelte';
import { isNumeric, typedOf } from '$lib/text/typed';

type Change = Api['RequestedChangeResponse'];

/** A value that is asked for, or was there, as people read it; nothing where there is none. */
export function shownRequested(change: Pick<Change, 'type'>, value: Api['RequestedValueResponse'] | null): string | undefined {
  if (!value || value.value === null || value.value === undefined) return undefined;
  if (value.display) return value.display;
  const typed = typedOf({ type: change.type, value: value.value });
  if (isNumeric(change))
    return text.number(Number(value.value), change.type === 'money' ? Math.max(2, (typed.split('.')[1] ?? '').length) : undefined);
  return shownValue({ type: change.type, options: null, list: null }, typed, []);
}

import { api, data, type Api } from '$lib/api/client';
import { text } from './index.svelte';

/** Names of fields where only their keys are at hand; the record's own labels come with it. */
let labels = $state<Record<string, Api['Labels']>>({});

/** Fetches the names, as far as the reader may see the fields. */
export async function loadFieldLabels() {
  labels = await data(api.GET('/api/fields/labels'));
}

/** Over a field; of a value in a row with what the row is about, where its address says that. */
export const fieldTitle = (address: string) => {
  const [key, row] = address.split('@');
  const label = labels[key!]?.[text.language] ?? key!;
  return row === undefined || /^[0-9a-f]{8}-/.test(row) ? label : `${label} (${row})`;
};

/** Within a sentence, where German words keep their capitals and others lose that of the beginning. */
export const fieldLabel = (key: string) =>
  text.language === 'de' ? fieldTitle(key) : fieldTitle(key).replace(/^\p{Lu}(?!\p{Lu})/u, (c) => c.toLocaleLowerCase());

import { api, data, type Api } from '$lib/api/client';
import { text } from '$lib/text/index.svelte';

/** Names of fields where only their keys are at hand; the record's own labels come with it. */
let labels = $state<Record<string, Api['Labels']>>({});

/** Fetches the names, as far as the reader may see the fields. */
export async function loadFieldLabels() {
  labels = await data(api.GET('/api/fields/labels'));
}

/** Over a field. */
export const fieldTitle = (key: string) => labels[key]?.[text.language] ?? key;

/** Within a sentence, where German words keep their capitals and others lose that of the beginning. */
export const fieldLabel = (key: string) =>
  text.language === 'de' ? fieldTitle(key) : fieldTitle(key).replace(/^\p{Lu}(?!\p{Lu})/u, (c) => c.toLocaleLowerCase());

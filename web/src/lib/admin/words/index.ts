import { dateFormat } from '$lib/text/formats';
import { text } from '$lib/text/index.svelte';
import { wordsOf } from '$lib/text/language.svelte';

/** What the account and Admin say, in the reader's language. */
export const words = await wordsOf({ en: async () => (await import('./en')).en, de: async () => (await import('./de')).de });

/** A moment as the reader's place has it, to the minute. */
export const showMoment = (at: string) => dateFormat(text.t.locale, { dateStyle: 'medium', timeStyle: 'short' }).format(new Date(at));

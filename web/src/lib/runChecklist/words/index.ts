import { wordsOf } from '$lib/text/language.svelte';

/** What the checklist of a pay run says, in the reader's language. */
export const words = await wordsOf({ en: async () => (await import('./en')).en, de: async () => (await import('./de')).de });

import type { Api } from '$lib/api/client';
import { wordsOf } from '$lib/text/language.svelte';

/** What a hire's checklist is run for: those of pay runs are nobody's. */
export type HireOccasion = Exclude<Api['Occasion'], 'payRun'>;

/** What the checklist of a hire says by what it is run for, in the reader's language. */
export const words = await wordsOf({ en: async () => (await import('./en')).en, de: async () => (await import('./de')).de });

/** What it says for one of them. No hire is there for a pay run. */
export function occasionWords(occasion: Api['Occasion']) {
  if (occasion === 'payRun') throw new Error('No hire is there for a pay run.');
  return words()[occasion];
}

import { text } from './index.svelte';

/** What something that the firm entered is called in the reader's language; its first name where there is none in German. */
export const named = (thing: { name: string; nameDe?: string | null }) => (text.language === 'de' && thing.nameDe) || thing.name;

import { text } from '$lib/text/index.svelte';
import { de } from './de';
import { en } from './en';

/** What Templates says, in the reader's language. */
export const words = () => (text.language === 'de' ? de : en);

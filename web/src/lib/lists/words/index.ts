import { text } from '$lib/text/index.svelte';
import { de } from './de';
import { en } from './en';

/** What the lists say, in the reader's language. */
export const words = () => (text.language === 'de' ? de : en);

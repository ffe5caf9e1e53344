import { text } from '$lib/text/index.svelte';
import { de } from './de';
import { en } from './en';

/** In the reader's language. */
export const words = () => (text.language === 'de' ? de : en);

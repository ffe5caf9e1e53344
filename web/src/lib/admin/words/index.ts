import { dateFormat } from '$lib/text/formats';
import { text } from '$lib/text/index.svelte';
import { de } from './de';
import { en } from './en';

/** What the account and Admin say, in the reader's language. */
export const words = () => (text.language === 'de' ? de : en);

/** A moment as the reader's place has it, to the minute. */
export const showMoment = (at: string) => dateFormat(text.t.locale, { dateStyle: 'medium', timeStyle: 'short' }).format(new Date(at));

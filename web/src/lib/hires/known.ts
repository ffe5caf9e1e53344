import type { Api } from '$lib/api/client';
import { text } from '$lib/text/index.svelte';
import { words } from './words';

/** Whether somebody the firm knows works here, is about to, or did. */
export function since(person: Api['KnownPerson']): string {
  const t = words().opening.known;
  if (!person.worksHere) return person.ended ? t.until(text.day(person.ended)) : '';
  return person.started > text.today ? t.arrives(text.day(person.started)) : t.here;
}

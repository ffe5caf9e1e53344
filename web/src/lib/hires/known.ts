import type { Api } from '$lib/api/client';
import { text } from '$lib/text/index.svelte';
import { words } from './words';

type Known = Api['KnownPerson'];

export const fullName = (person: Known) => `${person.givenName} ${person.familyName}`.trim();

/** What somebody the firm knows does, their number, and whether they work here, are about to, or did; with more said before that. */
export function aboutKnown(person: Known, ...more: string[]): string {
  const t = words().opening.known;
  const since = !person.worksHere
    ? person.ended && t.until(text.day(person.ended))
    : person.started > text.today
      ? t.arrives(text.day(person.started))
      : t.here;
  return [person.job, person.number, ...more, since].filter(Boolean).join(' · ');
}

/** Why it may be them. */
export const whyKnown = (person: Known) => person.reasons.map((r) => words().opening.known.reasons[r] ?? r).join(', ');

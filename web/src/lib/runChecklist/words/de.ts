import { word } from '$lib/text/counted/de';

/** Was die Checkliste eines Lohnlaufs auf Deutsch sagt. */
export const de: typeof import('./en').en = {
  title: 'Checkliste des Laufs',
  holding: (n: number) =>
    n === 1 ? 'Eines zu tun, bevor er übergeben werden darf.' : `${word(n)} zu tun, bevor er übergeben werden darf.`,
  mayBeHandedOver: 'Alles ist getan: Er darf übergeben werden.',
  none: 'Dieser Lauf hat keine Checkliste.',
  begin: 'Seine Checkliste beginnen',
  template: 'Nach',
  noTemplate: 'Eine Checkliste beginnt nach einer Vorlage für Lohnläufe: Noch gibt es keine.',
  toTemplates: 'Unter Vorlagen eine anlegen',
  begun: 'Begonnen. Die folgenden Läufe beginnen mit derselben.',
  takeAway: 'Checkliste wegnehmen',
  takenAway: 'Weggenommen.',
  from: (template: string) => `nach ${template}`,
  done: (name: string) => `${name}: erledigt`,
  isDone: (name: string) => `${name} ist erledigt.`,
  isOpen: (name: string) => `${name} ist zu tun.`,
  isSkipped: (name: string) => `${name} entfällt.`,
  by: (day: string) => `bis ${day}`,
  canBegin: (day: string) => `kann ${day} beginnen`,
  doneBy: (name: string, day: string) => `${name}, ${day}`,
  optional: 'nicht nötig',
  undo: 'Rückgängig',
  skip: 'Entfällt…',
  skipOf: (name: string) => `${name} entfällt`,
  skipTitle: (name: string) => `${name} entfällt`,
  skipWhy: 'Warum entfällt es in diesem Lauf?',
  skipAct: 'Entfällt',
  unskip: 'Ist doch zu tun',
  skipped: (why: string) => `entfällt: ${why}`,
  own: 'Lohnläufe',
  run: (group: string, from: string, to: string) => `${group}, ${from} bis ${to}`,
  cutOff: (day: string) => `Stichtag ${day}`
};

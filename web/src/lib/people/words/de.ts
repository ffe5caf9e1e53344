import type { en } from './en';

/** What People says in German. */
export const de: typeof en = {
  standing: 'Heute',
  all: 'auch, wer hier war',
  standings: {
    coming: () => 'kommt',
    here: () => 'hier',
    leaving: (day) => (day ? `geht am ${day}` : 'hier'),
    left: (day) => (day ? `ging am ${day}` : 'gegangen'),
    neverCame: () => 'kam nicht zustande'
  },
  find: 'Finden nach Name, Nummer, Ausweis, Stelle oder Ort',
  on: 'Stand vom',
  asOf: 'Wer damals hier war, und als was',
  payCheck: 'Lohnprüfung',
  payRevision: 'Lohnrunde',
  sheet: 'Als Tabelle holen',
  title: (n) => `Personen${n}`,
  number: 'Nummer',
  name: 'Name',
  job: 'Stelle',
  department: 'Abteilung',
  site: 'Standort',
  since: 'Seit',
  more: 'Mehr zeigen',
  none: 'So heißt niemand.'
};

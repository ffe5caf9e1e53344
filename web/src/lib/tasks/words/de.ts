import { word } from '$lib/text/counted/de';
import type { en } from './en';

/** What My tasks says in German. */
export const de: typeof en = {
  news: (n) => (n === 0 ? 'Heute ist nichts für Sie zu tun.' : n === 1 ? 'Eine Aufgabe für Sie.' : `${word(n)} Aufgaben für Sie.`),
  late: (n) => (n === 1 ? 'Eine ist verspätet.' : `${word(n)} sind verspätet.`),
  now: 'Kann jetzt getan werden',
  later: 'Kommt später',
  for: 'für',
  starts: (day) => `beginnt ${day}`,
  by: (day) => `bis ${day}`,
  from: (day) => `ab ${day}`,
  noBound: 'ohne Termin',
  emptyTitle: 'Ihre Liste ist leer',
  empty: 'Hierher kommen Aufgaben Ihres Teams und Ihrer neuen Leute, die dringendsten zuerst.',
  more: (n) => `und ${n} weitere, spätere`,
  instructions: 'Was zu tun ist'
};

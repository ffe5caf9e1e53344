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
  instructions: 'Was zu tun ist',
  away: {
    open: 'Abwesend?',
    title: 'Wenn Sie nicht da sind',
    about:
      'Wer Sie vertritt, erledigt an diesen Tagen Ihre Aufgaben und wird an Ihrer Stelle gefragt. Ihr Lohn und die Akten Ihrer Leute bleiben davon unberührt.',
    from: 'Erster Tag',
    to: 'Letzter Tag',
    standIn: 'Wer vertritt',
    nobody: 'niemand vertritt',
    enter: 'Eintragen',
    entered: 'Es ist eingetragen.',
    end: 'Streichen',
    back: 'Ich bin zurück',
    ended: 'Es ist gestrichen.',
    line: (from, to, standIn) =>
      `${from === to ? from : `${from} bis ${to}`}, ${standIn === null ? 'niemand vertritt' : `${standIn} vertritt`}`,
    standsInFor: (name, to) => `Sie erledigen bis ${to} die Aufgaben von ${name}.`,
    now: (to, standIn) =>
      standIn === null ? `Sie sind bis ${to} nicht da, und niemand vertritt Sie.` : `Sie sind bis ${to} nicht da; ${standIn} vertritt Sie.`
  }
};

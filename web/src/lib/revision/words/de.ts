import { word } from '$lib/text/counted/de';
import type { Words } from './en';

/** What Pay revision says in German. */
export const de: Words = {
  title: 'Lohnrunde',
  ask: 'Wessen Lohn steigt, um wie viel und ab wann?',
  raised: (n, of, day) =>
    n === of
      ? `${n === 1 ? 'Eine Person verdient' : `Alle ${word(n).toLowerCase()} verdienen`} ab ${day} mehr.`
      : `${n} von ${of} verdienen ab ${day} mehr.`,
  nobody: 'Nach dieser Regel bekäme niemand mehr.',
  budget: (amount, percent) => `${amount} im Jahr, ${percent} % dessen, was sie jetzt verdienen.`,
  back: 'Personen',
  sheet: 'Als Tabelle holen',
  sheetNote: 'Einzelne Sätze in der Tabelle ändern und unter Austausch einlesen, gültig ab demselben Tag.',
  whose: 'Wessen Lohn',
  rule: 'Nach welcher Regel',
  whichever: 'beliebig',
  grade: 'Stufe',
  job: 'Stelle',
  site: 'Standort',
  payGroup: 'Abrechnungsgruppe',
  percent: 'Erhöhung in Prozent',
  atLeast: 'Mindestens, je Stunde',
  upToBand: 'Höchstens bis zum Ende des Bandes',
  from: 'Ab',
  notNumber: 'Eine Zahl wie 2,5 eingeben.',
  columns: { who: 'Wer', before: 'jetzt', after: 'danach', more: 'mehr', year: 'im Jahr mehr', because: 'Was entschied' },
  per: { hour: 'je Stunde', day: 'je Tag', week: 'je Woche', month: 'im Monat', year: 'im Jahr' },
  limits: { none: '', atLeast: 'Mindestbetrag je Stunde', bandMaximum: 'bis zum Ende des Bandes' },
  kinds: { all: 'Alle', atLeast: 'Mindestbetrag', upToBand: 'Bis zum Ende des Bandes', stays: 'Bleiben', ahead: 'Anderer Satz im Voraus' },
  stays: 'am Ende des Bandes, bleibt',
  ahead: (day) => `der ab ${day} eingetragene Satz bleibt`,
  leftOut: (n) => `${n} aus der Gruppe ${n === 1 ? 'bleibt' : 'bleiben'} wie jetzt`,
  leftOutWhy: {
    noRate: 'kein Satz, oder es fehlt, wofür er gilt',
    needsApproval: 'andere müssen zustimmen: in der Akte anfragen',
    notYours: 'diesen Lohn dürfen Sie nicht ändern'
  },
  why: 'Warum, für den Verlauf aller',
  make: (n) => `Lohn von ${n} erhöhen`,
  made: (n) => `Der Lohn von ${n} ist erhöht.`,
  undo: 'Rückgängig',
  undone: 'Alle werden bezahlt wie zuvor.',
  madeBefore: 'Frühere Runden',
  undoOf: (day) => `Runde ab ${day} rückgängig machen`,
  everybody: 'alle',
  percentOf: (n) => `+ ${n} %`,
  atLeastOf: (n) => `mindestens ${n} je Stunde`,
  upTo: 'bis zum Ende des Bandes',
  people: (n) => `${n} Personen`,
  by: (name, day) => `${name}, ${day}`,
  undoneBy: (name) => `rückgängig gemacht von ${name}`
};

import { days, word } from '$lib/text/counted/de';
import type { en } from './en';

/** What Pay check says in German. */
export const de: typeof en = {
  title: 'Lohnprüfung',
  toCheck: (n, day) => `${word(n)} zu prüfen bis ${day}.`,
  allChecked: (n) => (n === 1 ? 'Alles geprüft.' : `Alle ${n} sind geprüft.`),
  nobody: 'In diesem Zeitraum wird niemand neu oder anders bezahlt.',
  stopped: (n) => (n === 1 ? 'Eine kann nicht bezahlt werden.' : `${word(n)} können nicht bezahlt werden.`),
  noGroups: 'Zuerst kommen Abrechnungsgruppen mit ihren Zeiträumen: Sie sagen, wann bezahlt wird.',
  toLists: 'Abrechnungsgruppen einrichten',
  groups: 'Abrechnungsgruppen',
  group: (name, n) => `${name}, ${n} zu prüfen`,
  period: 'Tag im Zeitraum',
  sheet: 'Als Tabelle holen',
  csv: 'CSV',
  back: 'Personen',
  axis: (from, to, cutOff, paid) => `${from} bis ${to}, Stichtag ${cutOff}, bezahlt ${paid}`,
  thisPeriod: 'dieser Zeitraum',
  cutOff: (day) => `Stichtag ${day}`,
  paid: (day) => `bezahlt ${day}`,
  columns: {
    who: 'Wer, und was neu ist',
    against: 'Was dagegen steht',
    last: 'letztes Mal',
    now: 'jetzt, brutto',
    difference: 'Unterschied',
    checked: 'geprüft'
  },
  none: '–',
  news: {
    starts: (day) => `beginnt ${day}`,
    arrears: (day) => `begann ${day}`,
    ends: (day) => `letzter Tag ${day}`,
    group: (day) => `Abrechnungsgruppe ab ${day}`,
    rate: (day) => `Satz ab ${day}`,
    hours: (day) => `Stunden ab ${day}`,
    allowance: (day) => `Zulage ab ${day}`,
    secondJob: (day) => `Zweitstelle ab ${day}`,
    oneOff: (day) => `einmal gezahlt, fällig ${day}`
  },
  change: (before, after) => `${before} → ${after}`,
  findings: {
    notWorkedOut: () => 'lässt sich nicht ausrechnen: Satz, Stunden oder ein Bestandteil fehlt',
    noBankAccount: () => 'kein Bankkonto',
    cutOffMissed: (number, day) => `Stichtag um ${days(Number(number))} verpasst: bezahlt ${day} mit Nachzahlung`,
    negativeNet: (number) => `mehr abgezogen als verdient: ${number}`,
    changeWaits: () => 'eine Änderung der Bezahlung wartet auf Zustimmung',
    outsideBand: (number) => (number.startsWith('-') ? `${number.slice(1)} % unter dem Band` : `${number} % über dem Band`),
    unlikeTemplate: (number) => `anders als die Vorlage, die ${number} sagt`,
    startsAfterPeriod: () => 'beginnt nach dem Zeitraum: nicht darin bezahlt'
  },
  check: (name) => `${name} ist geprüft`,
  by: (name, when) => `von ${name}, ${when}`,
  changedSince: (what) => (what === '' ? 'seither geändert' : `seither geändert: ${what}`),
  facts: {
    start: 'Beginn',
    end: 'letzter Tag',
    periods: 'bezahlte Zeiträume',
    gross: 'brutto',
    net: 'netto',
    employerCost: 'Kosten der Firma'
  },
  checkClean: (n) => (n === 1 ? 'Abhaken, wogegen nichts steht' : `Die ${n} abhaken, gegen die nichts steht`),
  ticked: (n) => (n === 1 ? 'Geprüft.' : `${n} geprüft.`),
  unticked: 'Nicht mehr geprüft.',
  undo: 'Rückgängig',
  tick: 'Geprüft',
  untick: 'Nicht geprüft',
  openRecord: 'Akte öffnen',
  net: 'netto',
  paysNothing: 'Diese Abrechnung bezahlt hier nichts.',
  typed: (name, day) => `Den Satz hat ${name} am ${day} eingegeben.`,
  typedWhy: (name, day, why) => `Den Satz hat ${name} am ${day} eingegeben: „${why}“.`,
  lastWas: (before, after) => `Letztes Mal ${before}, jetzt ${after}.`,
  totals: 'Summen dieser Zeilen',
  total: 'Alle',
  people: 'Personen',
  gross: 'brutto',
  deductions: 'Abzüge',
  cost: 'Kosten der Firma',
  byDepartment: 'Nach Abteilung',
  byCostCentre: 'Nach Kostenstelle',
  without: 'ohne',
  ungrouped: (n) =>
    n === 1
      ? 'Eine neue Person ist in keiner Abrechnungsgruppe und wird nie bezahlt:'
      : `${n} Neue sind in keiner Abrechnungsgruppe und werden nie bezahlt:`
};

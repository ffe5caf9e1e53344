import type { en } from './en';

/** What an offer says in German. */
export const de: typeof en = {
  title: (name) => `Angebot für ${name}`,
  back: 'Akte',
  form: (letter) => `Fassung ${letter}`,
  add: 'Fassung hinzufügen',
  remove: (letter) => `Fassung ${letter} weglassen`,
  take: (letter) => `${letter} übernehmen`,
  taken: 'In die Akte übernommen.',
  paper: 'Als PDF holen',
  why: 'Warum, wo es begründet sein muss',
  notNumber: 'Bitte eine Zahl eingeben, etwa 17,40.',
  sections: { offered: 'Was angeboten wird', them: 'Für die Person', firm: 'Für die Firma' },
  rows: {
    rate: 'Satz',
    paidBy: 'Bezahlt',
    hours: 'Wochenstunden',
    allowance: 'Zulage je Zeitraum',
    allowanceFor: 'Zulage für',
    start: 'Beginn',
    yearly: 'Im Jahr',
    hourly: 'In der Stunde',
    period: 'Ein ganzer Zeitraum, brutto',
    net: 'Ein ganzer Zeitraum, netto',
    payDay: 'Erster Zahltag',
    first: 'Erster Lohn, brutto',
    firstNet: 'Erster Lohn, netto',
    cost: 'Kosten im Jahr',
    loaded: 'Kosten je produktive Stunde',
    band: 'Gegen das Band'
  },
  whole: (part, whole) => `${part} von ${whole}`,
  position: { below: 'darunter', within: 'darin', above: 'darüber' },
  none: '–'
};

import { word } from '$lib/text/counted/de';
import type { en } from './en';

/** What the record says in German. */
export const de: typeof en = {
  sectionsLabel: 'Abschnitte',
  doNotFit: (n) => (n === 1 ? 'Ein Wert passt nicht in sein Feld:' : `${n} Werte passen nicht in ihre Felder:`),
  filledOf: (filled, of) => `${filled} von ${of}`,
  filled: (filled, of) => `${filled} von ${of} gefüllt`,
  needed: (n) => `${n} noch nötig`,
  coming: (value, day) => `${value} ab ${day}`,
  neededFrom: (stage) => (stage === 'now' ? 'jetzt nötig' : stage === 'arrive' ? 'vor dem ersten Tag nötig' : `nötig ab ${stage}`),
  draftKept: (when: string) => `Was am ${when} eingetippt wurde, ist noch nicht gespeichert. Es steht noch da.`,
  otherStints: 'War auch schon hier',
  choose: 'Datei wählen',
  takes: (kinds, megabytes) => `${kinds.length > 0 ? kinds.join(', ') : 'jede Art'}, höchstens ${String(megabytes).replace('.', ',')} MB`,
  remove: 'Entfernen',
  hide: 'Verbergen',
  replace: 'Ersetzen',
  takeAway: (name) => `${name} wegnehmen`,
  rows: {
    add: 'Hinzufügen',
    addTo: (label) => `Zu ${label} hinzufügen`,
    close: 'Fertig',
    one: 'eine Zeile',
    gone: 'entfernt',
    takeAway: 'Entfernen',
    putBack: 'Zurückholen',
    none: 'Bisher nichts.',
    fresh: 'neu',
    unnamed: 'noch nichts eingetragen',
    today: (label) => `${label} heute`,
    state: 'Stand',
    needed: 'nötig',
    missing: 'fehlt',
    expired: (day) => (day ? `abgelaufen am ${day}` : 'abgelaufen'),
    expiring: (day) => (day ? `läuft ab am ${day}` : 'läuft ab'),
    valid: (day) => (day ? `gültig bis ${day}` : 'gültig')
  },
  grade: 'Stufe',
  band: 'Gehaltsband',
  readings: 'Ablesungen',
  againstBand: 'Im Band',
  noBand: 'Dafür braucht es Satz, Stunden, Abrechnungsgruppe und Stelle.',
  colleagues: (n) =>
    n === 0
      ? 'Niemand sonst hat hier diese Stelle.'
      : n === 1
        ? 'Eine andere Person hat hier diese Stelle.'
        : `${word(n)} andere haben hier diese Stelle.`,
  fromColleagues: (percent, shown) =>
    percent === 0 ? 'Genau in ihrer Mitte.' : `${shown} % ${percent > 0 ? 'über' : 'unter'} ihrer Mitte.`,
  position: { below: 'unter dem Band', within: 'im Band', above: 'über dem Band' },
  firstPay: {
    title: 'Erste Zahlung',
    when: (day, cutOff) => `${day}, Annahmeschluss ${cutOff}`,
    part: (part, whole, method) =>
      `${part} von ${whole} ${{ calendarDays: 'Kalendertagen', workingDays: 'Arbeitstagen', annual260: 'Arbeitstagen des Jahres', rosteredHours: 'Stunden nach Dienstplan' }[method] ?? 'Tagen'}`,
    wholePeriod: 'Ein ganzer Zeitraum',
    missed: (periods, cutOff) =>
      `${periods === 1 ? 'Ein Zeitraum kommt' : `${word(periods)} Zeiträume kommen`} später: Annahmeschluss war ${cutOff}.`,
    asIfToday: 'Berechnet, als wäre heute alles da.',
    arrearsOf: (day) => `Zeitraum ab ${day}, verspätet`,
    periodFrom: (day) => `Zeitraum ab ${day}`,
    net: 'Auf das Konto',
    beforeDeductions: 'Vor Abzügen',
    drawing: (start, cutOff, payDay) => `Beginnt ${start}; Annahmeschluss ${cutOff}; gezahlt ${payDay}`
  },
  cost: {
    title: 'Kostet den Betrieb',
    per: 'je gearbeitete Stunde',
    over: (cost, hours) => `${cost} im Jahr für ${hours} Std.`
  },
  leaveIn: (year) => `Urlaub ${year}`,
  leaveOf: (days, of) => `${days} von ${of} Tagen`,
  templateRate: { says: (rate) => `Die Vorlage sagt ${rate}.`, take: 'Übernehmen' },
  service: { title: 'Zugehörigkeit', first: 'Zuerst eingestellt', counts: 'Zählt ab', probation: 'Probezeit bis' },
  comesTo: 'Das sind',
  per: { hour: 'pro Stunde', day: 'pro Tag', week: 'pro Woche', month: 'im Monat', year: 'im Jahr' },
  overTime: {
    title: 'Entgelt im Lauf der Zeit',
    from: (day) => `ab ${day}`,
    drawing: (steps) => `Was ein Jahr bringt: ${steps.join('; ')}`
  },
  offers: 'Angebote vergleichen',
  checks: 'Prüfungen',
  clean: 'Nichts spricht dagegen.',
  tooFewColleagues: 'Zu wenige haben diese Stelle, um ihr Entgelt zu zeigen, ohne zu verraten, wessen es ist.',
  somebodyElse: 'jemand anderem',
  badge: {
    overlap: (badge, other) => `Ausweis ${badge} trägt auch ${other}.`,
    tooSoon: (badge, other) => `Ausweis ${badge} gehörte bis vor zu kurzer Zeit ${other}.`,
    twoBadges: (badge, other) => `Ausweis ${badge} ist ein zweiter (${other}).`
  },
  changes: (n) => (n === 1 ? '1 Änderung' : `${n} Änderungen`),
  how: 'Ein Fehler berichtigt, oder eine Änderung ab einem Tag?',
  sayHow: 'Sagen Sie, was es ist, dann wird gespeichert.',
  folded: (n) => (n === 1 ? 'und ein weiteres, leeres' : `und ${word(n).toLowerCase()} weitere, leere`),
  fix: 'Berichtigung',
  from: (day) => `Ab ${day}`,
  fromDate: 'Ab',
  why: 'Warum',
  discard: 'Verwerfen',
  save: 'Speichern',
  saved: 'Gespeichert.',
  ask: 'Anfragen',
  whyAsked: 'Warum, für alle, die gefragt werden',
  byAsking: 'auf Anfrage',
  agreeing: (steps: string[][]) =>
    `${steps.map((who) => (who.length > 1 ? `jemand von ${who.join(', ')}` : (who[0] ?? 'niemand'))).join(', dann ')}`.replace(/^./, (c) =>
      c.toUpperCase()
    ) + (steps.length === 1 ? ' muss zustimmen.' : ' müssen zustimmen.'),
  atOnce: (fields: string[]) => `Sofort gespeichert: ${fields.join(', ')}.`,
  asked: (who: string[]) => (who.length > 0 ? `Angefragt. Es wartet auf ${who.join(' oder ')}.` : 'Angefragt.'),
  waits: (value: string, from: string | null, by: string) => `${by} möchte ${value || 'nichts'}${from ? ` ab ${from}` : ''}: wartet`,
  waiting: (n: number) => (n === 1 ? 'Eine Änderung ist angefragt und wartet:' : `${word(n)} Änderungen sind angefragt und warten:`),
  leave: 'Es gibt ungespeicherte Änderungen. Verlassen?',
  staleTitle: 'Jemand anderes hat diese Akte inzwischen gespeichert',
  stale: 'Wählen Sie für jedes Feld. Bis zum Speichern geht nichts verloren.',
  field: 'Feld',
  theirs: 'Deren, gespeichert',
  yours: 'Ihres',
  goOn: 'Damit weiter',
  asOf: (day) => `wie sie am ${day} sein wird`,
  nobody: 'Niemand',
  clear: 'Feld leeren',
  byJob: {
    family: 'Berufsgruppe',
    classification: 'Berufskennziffer',
    overtime: 'Überstunden',
    safety: 'Sicherheitsrelevant',
    yes: 'ja',
    certificates: 'Nötige Nachweise',
    desirable: (name) => `${name} (erwünscht)`,
    items: 'Ausgabe'
  }
};

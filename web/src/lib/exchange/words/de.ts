import type { ExchangeWords } from './en';

/** What Exchange says in German. */
export const de: ExchangeWords = {
  title: 'Austausch',
  intro: 'Tabellen, die hereinkamen, und wo jede von ihnen ist.',
  fill: 'Aus einer Tabelle füllen',
  none: 'Noch keine Tabelle gekommen.',
  columns: { when: 'Wann', file: 'Tabelle', list: 'In', by: 'Von', state: 'Wo sie ist', rows: 'Zeilen' },
  states: {
    reading: 'wird gelesen',
    ready: 'wartet auf eine Entscheidung',
    checking: 'wird geprüft',
    committing: 'wird übernommen',
    committed: 'ist übernommen',
    undoing: 'wird rückgängig gemacht',
    undone: 'wurde rückgängig gemacht',
    failed: 'ließ sich nicht lesen',
    dropped: 'kam nicht ganz an'
  },
  newTitle: 'Aus einer Tabelle füllen',
  into: 'In welche Liste, oder in die Akten',
  drop: 'Datei hier ablegen, Zellen einfügen oder wählen',
  dropNote: (mb) =>
    `.csv, .tsv oder .xlsx mit einer Kopfzeile, höchstens ${mb} MB. Nichts ändert sich, bevor du gesehen hast, was jede Zeile täte.`,
  choose: 'Datei wählen',
  pasted: 'eingefügte Zellen',
  getSheet: 'Tabelle mit den richtigen Spalten holen',
  getFilled: 'Tabelle mit dem jetzigen Inhalt holen',
  getPeople: 'Die Akten aller als Tabelle holen',
  peopleNote:
    'Ändere, was zu ändern ist, und bring sie zurück: Spalten dürfen umziehen oder fehlen, Zeilen auch. Eine Zeile mit Rollenvorlage und ohne Personalnummer öffnet eine Einstellung. Versiegelte Werte und Dateien stehen nicht in Tabellen.',
  getHires: 'Leere Tabelle für Einstellungen holen',
  employeeNumber: 'Personalnummer',
  holdsFrom: 'Gilt ab',
  corrects: 'Leer gelassen, berichtigt es, was da ist.',
  committedPeople: (n, c) =>
    [
      n === 0 ? '' : n === 1 ? 'Eine Einstellung wurde geöffnet.' : `${n} Einstellungen wurden geöffnet.`,
      c === 0 ? '' : c === 1 ? 'Eine Akte wurde geändert.' : `${c} Akten wurden geändert.`
    ].join(' '),
  undoingHires: 'Die Einstellungen kommen nicht zustande, die Akten sind wie zuvor. Das geht, solange niemand daran gearbeitet hat.',
  undoingPeople: 'Die Akten sind wie zuvor. Das geht, solange niemand dieselben Werte seither geändert hat.',
  toPeople: 'Zu den Personen',
  toArrivals: 'Zu den Ankünften',
  hiresStay: (n) => `${n} Einstellungen wurden geöffnet, und vielleicht arbeitet schon jemand daran: jede wird für sich zurückgezogen.`,
  uploading: 'Die Datei ist unterwegs.',
  tooLarge: (mb) => `Die Datei hat mehr als ${mb} MB. Teile sie oder lass weg, was nicht nötig ist.`,
  progress: (done, of) => (of > 0 ? `${done} von ${of} Zeilen` : `${done} Zeilen`),
  leaveIt: 'Du kannst gehen; es läuft weiter und findet sich unter Austausch wieder.',
  outcomes: { new: 'neu', changed: 'geändert', same: 'wie gehabt', wrong: 'nicht richtig', ignored: 'übergangen' },
  filter: 'Zeige',
  all: 'Alle',
  row: 'Zeile',
  would: 'Würde',
  matchTo: (header) => `Was ${header} ist`,
  leaveOut: 'weglassen',
  by: {
    Header: 'am Kopf erkannt',
    Spelling: 'an ähnlichem Kopf',
    Content: 'am Inhalt',
    Memory: 'wie letztes Mal',
    Hand: 'wie gesagt',
    Nothing: ''
  },
  dates: 'Daten wie 3/4/2027 sind',
  dateOrders: {
    dayMonthYear: 'Tag, Monat, Jahr: 3. April',
    monthDayYear: 'Monat, Tag, Jahr: 4. März',
    yearMonthDay: 'geschrieben 2027-04-03'
  },
  askDates: 'Die Daten hier verraten nicht oder widersprechen sich, ob Tag oder Monat zuerst steht. Sag, was gilt.',
  decimal: 'Dezimalen stehen',
  comma: 'mit Komma: 1,5',
  point: 'mit Punkt: 1.5',
  empty: 'Eine leere Zelle',
  emptyKeeps: 'lässt, was da ist',
  emptyClears: 'leert, was da ist',
  cell: (header, row) => `${header}, Zeile ${row}`,
  meant: (what) => `${what} nehmen`,
  allLike: (what) => `für alle „${what}“`,
  from: (old) => `war ${old || 'leer'}`,
  commitAll: (n) => (n === 1 ? 'Die eine Zeile übernehmen' : `Alle ${n} Zeilen übernehmen`),
  commitGood: (n) => (n === 1 ? 'Nur die gute Zeile übernehmen' : `Nur die ${n} guten Zeilen übernehmen`),
  rest: 'Den Rest als Tabelle holen',
  dropIt: 'Aufgeben',
  undo: 'Ganzen Import rückgängig machen',
  undoing: 'Neue Einträge gehen, geänderte sind wie zuvor. Das geht, solange nichts sie verwendet.',
  nothing: 'Keine Zeile würde etwas ändern.',
  summary: (n, c) => `${n} neu, ${c} geändert`,
  committed: (n, c) => `${n} neue und ${c} geänderte Einträge sind in der Liste.`,
  toList: 'Zur Liste',
  failures: {
    meanwhile: 'Etwas wurde geändert, seit diese Zeilen geprüft wurden. Sie sind neu geprüft: sieh noch einmal hin.',
    fault: 'Etwas ging schief. Nichts ist halb getan; versuch es noch einmal.'
  },
  used: (codes) => `Das geht nicht mehr: ${codes} wird verwendet.`,
  changedSince: (codes) => `Das geht nicht mehr: ${codes} wurde seither geändert.`
};

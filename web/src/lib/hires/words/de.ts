import type { en } from './en';

/** What opening many hires, candidates, hires that come to nothing and merging say in German. */
export const de: typeof en = {
  opening: {
    ways: { template: 'Aus einer Vorlage', full: 'Vollständig', like: 'Wie jemand anderes', many: 'Viele auf einmal' },
    born: 'Geburtsdatum',
    bornHint: 'etwa 12.4.1998',
    aged: (years) => `${years} Jahre alt`,
    colleague: 'Kollegin oder Kollege',
    copy: 'Übernehmen',
    parts: { job: 'Tätigkeit und Abteilung', pay: 'Lohn', clock: 'Muster und Zeiterfassung', checklist: 'Checkliste', items: 'Ausgaben' },
    known: {
      title: 'Schon bekannt?',
      reasons: {
        identifier: 'dieselbe amtliche Nummer',
        name: 'derselbe Name',
        similarName: 'fast derselbe Name',
        swappedNames: 'Namen vertauscht',
        otherName: 'ein früherer Name',
        born: 'dasselbe Geburtsdatum',
        swappedBirthDate: 'Tag und Monat vertauscht',
        email: 'dieselbe E-Mail',
        phone: 'dieselbe Telefonnummer'
      },
      first: (day) => `zuerst eingestellt ${day}`,
      until: (day) => `bis ${day}`,
      here: 'arbeitet jetzt hier',
      arrives: (day) => `beginnt ${day}`,
      record: 'Akte öffnen',
      secondStint: 'Diese Person arbeitet dann schon hier.',
      meant: 'Zwei Arbeitsverhältnisse zugleich sind gemeint',
      service: (day) => `die Dienstzeit zählte ab ${day}`,
      choose: 'Ein neues Arbeitsverhältnis dieser Person',
      chosen: (name) => `Neues Arbeitsverhältnis von ${name}`,
      else: 'Jemand anderes',
      reuse: 'Übernehmen'
    },
    past: {
      title: (days) => `Der Beginn war vor ${days} ${days === 1 ? 'Tag' : 'Tagen'}.`,
      means: (overdue) =>
        `Alles gilt ab diesem Tag. ${overdue === 0 ? 'Keine Aufgabe war vor heute fällig' : overdue === 1 ? 'Eine Aufgabe war vor heute fällig: sie zeigt sich als „bevor wir es wussten“' : `${overdue} Aufgaben waren vor heute fällig: sie zeigen sich als „bevor wir es wussten“`}, der Lohn für die Tage seither ist mit dem nächsten Zahltag fällig, und seither Gestempeltes gehört zu dieser Akte.`,
      meant: 'Es ist so gemeint'
    }
  },
  many: {
    title: 'Viele auf einmal',
    intro:
      'Eine Zeile je Einstellung. Aus Tabellen einfügen, Strg D füllt leere Zellen darunter, Strg Z nimmt zurück; Leeres kommt aus der Vorlage.',
    columns: 'Spalten',
    column: (name) => `Spalte ${name} wegnehmen`,
    addColumn: 'Spalte hinzufügen',
    kept: (n: number) => (n === 1 ? 'Eine Zelle war schon gefüllt und bleibt' : `${n} Zellen waren schon gefüllt und bleiben`),
    twin: (n: number) => `Zeile ${n} nennt fast dieselbe Person.`,
    two: 'Es sind zwei Personen',
    undecided: (n: number) => (n === 1 ? 'Sagen Sie bei einer Zeile erst, wer es ist' : `Sagen Sie bei ${n} Zeilen erst, wer es ist`),
    fillDown: 'Nach unten füllen',
    addRow: 'Zeile hinzufügen',
    row: (n) => `Zeile ${n}`,
    cell: (column, n) => `${column}, Zeile ${n}`,
    remove: (n) => `Zeile ${n} wegnehmen`,
    open: (n) => (n === 1 ? 'Einstellung anlegen' : `${n} Einstellungen anlegen`),
    opened: (n) => (n === 1 ? 'Eine Einstellung angelegt' : `${n} Einstellungen angelegt`),
    wrong: (causes, following) =>
      (causes === 1 ? 'Eine Zelle stimmt nicht' : `${causes} Zellen stimmen nicht`) +
      (following > 0 ? `, ${following} weitere folgen daraus` : ''),
    template: 'Rollenvorlage',
    start: 'Beginn',
    sheet: 'Mehr als 200? Nehmen Sie eine Tabelle',
    filled: (n, of) => `${n} von ${of} gefüllt`,
    past: 'Beginne in der Vergangenheit sind so gemeint',
    ready: 'bis dahin fertig',
    notReady: (day) => `frühestens ${day}`
  },
  intake: {
    title: 'Bewerbungen',
    link: 'Bewerbungen',
    feed: 'Adresse der Schnittstelle',
    save: 'Behalten',
    none: 'Noch keine Schnittstelle. Die Verwaltung sagt, wo sie ist; docs/recruiting-feed.openapi.json sagt, was sie antworten muss.',
    pull: 'Jetzt abrufen',
    pulled: (arrived, changed) => `${arrived} neu, ${changed} geändert`,
    failed: 'Die Schnittstelle ließ sich nicht lesen.',
    waiting: (n) => (n === 0 ? 'Niemand wartet.' : n === 1 ? 'Eine Bewerbung wartet.' : `${n} Bewerbungen warten.`),
    take: 'Einstellung anlegen…',
    instead: 'Eine andere Einstellung ist angefangen und noch nicht angelegt. Aufgeben?',
    decline: 'Ablehnen…',
    declineWhy: 'Warum',
    declined: 'abgelehnt',
    states: { waiting: 'wartet', taken: 'übernommen', declined: 'abgelehnt' },
    becomes: (what) => `wird ${what}`,
    noTemplate: (role) => `keine Vorlage heißt ${role}`,
    noSite: (site) => `kein Standort heißt ${site}`,
    role: 'Rolle',
    proposals: 'Seither anders gesagt',
    proposal: (field, now) => `${field} ist jetzt ${now}`,
    takeOver: 'Übernehmen',
    leave: 'So lassen',
    runs: 'Abrufe',
    run: (candidates, arrived, changed) => `${candidates} Bewerbungen, ${arrived} neu, ${changed} geändert`,
    tries: (n) => `${n} Versuche`,
    notices: 'Was anderen Systemen gesagt wird',
    systems: { recruiting: 'Bewerbungen', payroll: 'Lohn', clocks: 'Zeiterfassung', directory: 'Verzeichnis' },
    kinds: {
      opened: 'Einstellung angelegt',
      startMoved: 'Beginn verschoben',
      withdrawn: 'zurückgezogen',
      noShow: 'nicht erschienen',
      wentOn: 'geht weiter',
      declined: 'abgelehnt'
    },
    told: (day, who) => (who ? `gesagt von ${who}, ${day}` : `gehört ${day}`),
    toTell: 'von Hand zu sagen',
    toldIt: 'Ich habe es gesagt',
    again: (n, trouble) => `${n} ${n === 1 ? 'Versuch' : 'Versuche'}: ${trouble} Es wird wieder versucht.`
  },
  outcome: {
    act: 'Kommt nicht zustande…',
    title: (name) => `${name} kommt nicht`,
    withdrawn: 'Zurückgezogen: die Person oder wir',
    noShow: 'Nicht erschienen am ersten Tag',
    postponed: 'Verschoben: kommt später',
    why: 'Warum',
    means: 'Offene Aufgaben entfallen, Ausweis und Ausgegebenes werden zur Rückgabe aufgeführt, andere Systeme erfahren es.',
    done: (name) => `${name} wird nicht mehr erwartet.`,
    undo: 'Doch weitermachen',
    undone: 'Die Einstellung geht weiter.',
    neverWas: 'kam nicht zustande',
    became: { withdrawn: 'Zurückgezogen', noShow: 'Nicht erschienen' },
    toReturn: 'Zurückzugeben',
    nothing: 'Nichts wurde ausgegeben.',
    act2: 'Einstellung schließen',
    move: 'Beginn verschieben…'
  },
  merge: {
    act: 'Dieselbe Person wie…',
    title: 'Zwei Akten einer Person',
    other: 'Die andere Akte',
    intro: 'Die Arbeitsverhältnisse beider kommen hier zusammen. Wo beide etwas sagen, wählen Sie.',
    fact: 'Angabe',
    same: 'gleich',
    nothing: '–',
    stint: (number, job) => (job ? `Nr. ${number}, ${job}` : `Nr. ${number}`),
    since: (day) => `seit ${day}`,
    from: (day) => `beginnt ${day}`,
    until: (from, to) => `${from} bis ${to}`,
    underWay: 'Einstellung läuft',
    remains: (n) =>
      n === 1
        ? 'Eine Nummer bleibt in Gebrauch:'
        : n === 0
          ? 'Keine Nummer bleibt in Gebrauch.'
          : `${n} Nummern bleiben in Gebrauch, wenn nicht eine der Einstellungen geschlossen wird:`,
    closeHire: (number) => `Die Einstellung von Nr. ${number} schließen: zweimal angelegt`,
    closed: (number) => `Nr. ${number} wird damit geschlossen`,
    keep: (field, value) => `${field}: ${value} behalten`,
    take: (field, value) => `${field}: ${value} nehmen`,
    why: 'Warum',
    do: 'Zusammenführen',
    done: 'Sie sind jetzt eine Person.',
    undo: 'Wieder trennen',
    undone: 'Sie sind wieder zwei.',
    last: 'Wie vor der letzten Zusammenführung trennen'
  },
  cancel: 'Abbrechen',
  close: 'Schließen',
  help: (who, why) => `${who} kann helfen${why ? `: ${why}` : ''}`
};

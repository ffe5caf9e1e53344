import { word } from '$lib/text/counted/de';
import type { en } from './en';

/** What arrivals, changes of job and leavings are called in German, each in its own words. */
export const de: typeof en = {
  switch: 'Wer',
  arrival: {
    all: 'Ankommende',
    news: (n) => (n === 0 ? 'Niemand kommt an.' : n === 1 ? 'Eine Person kommt an.' : `${word(n)} kommen an oder leben sich ein.`),
    notReady: (n) =>
      n === 0
        ? 'Für alle kann alles bereit sein.'
        : n === 1
          ? 'Für eine Person wäre nicht alles bereit.'
          : `Für ${word(n).toLowerCase()} wäre nicht alles bereit.`,
    emptyTitle: 'Niemand ist unterwegs',
    empty: 'Legen Sie die erste Einstellung an: Name, Rollenvorlage, Beginn und Standort genügen.',
    notInTime: 'Am ersten Tag nicht bereit',
    columns: { name: 'Neu dabei', start: 'Beginn', ready: 'Bereit für Tag eins' },
    inTime: 'zu Tag eins',
    inTimeOf: (done, of) => `${done} von ${of} Aufgaben zu Tag eins`,
    soonestDay: 'Frühester Beginn, zu dem alles bereit ist:',
    noSoonest: 'Zu keinem Beginn in den nächsten zwei Jahren wäre alles bereit.',
    ropeLabel: (name, done, of, frayed) =>
      `${name}: ${done} von ${of} Aufgaben zu Tag eins erledigt${frayed ? ', etwas ist verspätet' : ''}`,
    checklist: 'Checkliste',
    coming: 'beginnt',
    past: 'begann',
    passed: 'Tag eins ist vorbei.',
    soonest: (day) => `Für einen Beginn am ${day} wäre alles bereit.`,
    whatIf: 'Was wäre bei Beginn am',
    beforeIt: 'vor Tag eins',
    beforeItInFull: 'sie gehört vor Tag eins.',
    settled: (day) => `Eingelebt am ${day}.`,
    move: {
      open: 'Beginn verschieben…',
      title: (name) => `Beginn von ${name} verschieben`,
      to: 'Neuer Beginn',
      values: 'Werte zu Bezahlung, Stelle und Zeiterfassung, die mit dem alten Beginn galten, gelten mit dem neuen.',
      act: (day) => `Beginn am ${day}`,
      moved: (name, day) => `${name} beginnt am ${day}.`,
      staleTitle: 'Jemand anderes hat den Beginn inzwischen verschoben'
    },
    end: {
      open: 'Kommt nicht zustande…',
      title: (name) => `${name} kommt nicht`,
      withdrawn: 'Zurückgezogen: die Person oder wir',
      means: 'Offene Aufgaben entfallen, Ausweis und Ausgegebenes werden zur Rückgabe aufgeführt, andere Systeme erfahren es.',
      done: (name) => `${name} wird nicht mehr erwartet.`,
      undone: 'Die Einstellung geht weiter.',
      act: 'Einstellung schließen'
    }
  },
  jobChange: {
    all: 'Stellenwechsel',
    news: (n) =>
      n === 0 ? 'Niemand wechselt die Stelle.' : n === 1 ? 'Eine Person wechselt die Stelle.' : `${word(n)} wechseln die Stelle.`,
    notReady: (n) =>
      n === 0
        ? 'Für alle kann alles bereit sein.'
        : n === 1
          ? 'Für eine Person wäre nicht alles bereit.'
          : `Für ${word(n).toLowerCase()} wäre nicht alles bereit.`,
    emptyTitle: 'Niemand wechselt die Stelle',
    empty: 'Ein Stellenwechsel wird in der Akte der Person eröffnet: Wechselt die Stelle.',
    notInTime: 'Zum Tag nicht bereit',
    columns: { name: 'Wer', start: 'In der neuen Stelle ab', ready: 'Bereit für den Wechsel' },
    inTime: 'davor',
    inTimeOf: (done, of) => `${done} von ${of} Aufgaben vor dem Wechsel`,
    soonestDay: 'Frühester Wechsel, zu dem alles bereit ist:',
    noSoonest: 'An keinem Tag der nächsten zwei Jahre wäre alles bereit.',
    ropeLabel: (name, done, of, frayed) =>
      `${name}: ${done} von ${of} Aufgaben vor dem Wechsel erledigt${frayed ? ', etwas ist verspätet' : ''}`,
    checklist: 'Stellenwechsel',
    coming: 'in neuer Stelle ab',
    past: 'in neuer Stelle seit',
    passed: 'Der Wechsel ist vollzogen.',
    soonest: (day) => `Für einen Wechsel am ${day} wäre alles bereit.`,
    whatIf: 'Was wäre bei einem Wechsel am',
    beforeIt: 'vor dem Wechsel',
    beforeItInFull: 'sie gehört vor den Wechsel.',
    settled: (day) => `Alles war am ${day} erledigt.`,
    move: {
      open: 'Wechsel verschieben…',
      title: (name) => `Stellenwechsel von ${name} verschieben`,
      to: 'Neuer Tag des Wechsels',
      values: 'Was in der Akte ab dem alten Tag gelten sollte, gilt ab dem neuen.',
      act: (day) => `Wechsel am ${day}`,
      moved: (name, day) => `${name} wechselt die Stelle am ${day}.`,
      staleTitle: 'Jemand anderes hat den Wechsel inzwischen verschoben'
    },
    end: {
      open: 'Findet nicht statt…',
      title: (name) => `${name} wechselt die Stelle nicht`,
      withdrawn: 'Abgesagt: die Stelle bleibt, wie sie ist',
      means: 'Offene Aufgaben entfallen, und die Akte sagt nicht mehr, dass die Stelle wechselt.',
      done: (name) => `${name} bleibt in der jetzigen Stelle.`,
      undone: 'Der Stellenwechsel geht weiter.',
      act: 'Absagen'
    },
    open: {
      act: 'Wechselt die Stelle…',
      title: (name) => `${name} wechselt die Stelle`,
      day: 'Erster Tag in der neuen Stelle',
      why: 'Warum (bleibt bei der Änderung)',
      values: 'Was sich ab dem Tag ändert',
      more: 'Noch etwas ändert sich',
      template: 'Vorlage',
      none: 'Für einen Stellenwechsel gibt es noch keine Vorlage.',
      do: 'Checkliste eröffnen',
      done: (name) => `Der Stellenwechsel von ${name} ist im Gange.`
    }
  },
  leaving: {
    all: 'Gehende',
    news: (n) => (n === 0 ? 'Niemand geht.' : n === 1 ? 'Eine Person geht.' : `${word(n)} gehen.`),
    notReady: (n) =>
      n === 0
        ? 'Alles kann rechtzeitig übergeben sein.'
        : n === 1
          ? 'Eine Person wäre nicht rechtzeitig fertig.'
          : `${word(n)} wären nicht rechtzeitig fertig.`,
    emptyTitle: 'Niemand geht',
    empty: 'Ein Austritt wird in der Akte der Person eröffnet: Geht.',
    notInTime: 'Nicht rechtzeitig fertig',
    columns: { name: 'Wer', start: 'Letzter Tag', ready: 'Vor dem letzten Tag übergeben' },
    inTime: 'davor',
    inTimeOf: (done, of) => `${done} von ${of} Aufgaben vor dem letzten Tag`,
    soonestDay: 'Frühester letzter Tag, zu dem alles erledigt ist:',
    noSoonest: 'Zu keinem letzten Tag der nächsten zwei Jahre wäre alles erledigt.',
    ropeLabel: (name, done, of, frayed) =>
      `${name}: ${done} von ${of} Aufgaben vor dem letzten Tag erledigt${frayed ? ', etwas ist verspätet' : ''}`,
    checklist: 'Austritt',
    coming: 'letzter Tag',
    past: 'letzter Tag',
    passed: 'Der letzte Tag ist vorbei.',
    soonest: (day) => `Für einen letzten Tag am ${day} wäre alles erledigt.`,
    whatIf: 'Was wäre bei letztem Tag am',
    beforeIt: 'vor dem letzten Tag',
    beforeItInFull: 'sie gehört vor den letzten Tag.',
    settled: (day) => `Alles war am ${day} erledigt.`,
    move: {
      open: 'Letzten Tag verschieben…',
      title: (name) => `Letzten Tag von ${name} verschieben`,
      to: 'Neuer letzter Tag',
      values: 'Das Ende in der Akte geht mit.',
      act: (day) => `Letzter Tag am ${day}`,
      moved: (name, day) => `Der letzte Tag von ${name} ist ${day}.`,
      staleTitle: 'Jemand anderes hat den letzten Tag inzwischen verschoben'
    },
    end: {
      open: 'Bleibt doch…',
      title: (name) => `${name} bleibt`,
      withdrawn: 'Abgesagt: die Person bleibt',
      means: 'Offene Aufgaben entfallen, und die Akte hat kein Ende mehr.',
      done: (name) => `${name} bleibt.`,
      undone: 'Der Austritt geht weiter.',
      act: 'Absagen'
    },
    open: {
      act: 'Geht…',
      title: (name) => `${name} geht`,
      day: 'Letzter Tag',
      why: 'Ein Wort dazu (bleibt bei der Änderung)',
      values: 'Was die Akte dazu sagt',
      more: 'Noch etwas',
      template: 'Vorlage',
      none: 'Für Austritte gibt es noch keine Vorlage.',
      do: 'Checkliste eröffnen',
      done: (name) => `Der Austritt von ${name} ist im Gange.`
    }
  },
  makeTemplate: 'Unter Vorlagen anlegen',
  dayMissing: 'Nennen Sie den Tag.',
  now: (value) => `jetzt ${value}`
};

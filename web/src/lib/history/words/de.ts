import type { en } from './en';

/** Was der Verlauf auf Deutsch sagt. */
export const de: typeof en = {
  title: 'Verlauf',
  values: 'Werte über die Zeit',
  valuesNote: 'Je Feld eine Linie: durchgezogen, solange es gilt, gestrichelt, wenn es berichtigt wurde. Heute in Rost.',
  changes: 'Änderungen',
  field: 'Feld',
  all: 'alle',
  person: 'Geändert von',
  source: 'Woher',
  from: (day) => `ab ${day}`,
  until: (from, to) => `${from} – ${to}`,
  believedUntil: (day) => `angenommen bis ${day}`,
  coming: 'kommt',
  compare: 'Zwei Tage nebeneinander',
  on: 'Wahr am',
  known: 'Wie bekannt am',
  with: 'und wahr am',
  knownNow: 'leer für das, was jetzt bekannt ist',
  same: 'Zwischen beiden unterscheidet sich nichts.',
  nothing: 'leer',
  actions: {
    'record.fixed': 'berichtigt',
    'record.changed': 'geändert',
    'record.takenBack': 'nahm eine Änderung zurück',
    'record.entryMoved': 'von stillgelegtem Eintrag verschoben',
    'record.imported': 'eingelesen',
    'field.revealed': 'ließ es sich zeigen',
    'hire.opened': 'eröffnete die Einstellung',
    'hire.startMoved': 'verschob den Beginn'
  },
  undone: 'gilt nicht mehr',
  explain: 'Erklären',
  takeBack: 'Zurücknehmen',
  why: 'Warum',
  save: 'Sichern',
  cancel: 'Abbrechen',
  takenBack: 'Zurückgenommen.',
  explained: 'Erklärt.',
  explainedBy: (who, day) => `erklärt von ${who} am ${day}`,
  none: 'Nichts passt zum Filter.'
};

import type { RoleWords } from './en';

export const de: RoleWords = {
  news: (own) =>
    own === 0
      ? 'Sieben Rollen gehören zu Fid.'
      : own === 1
        ? 'Sieben Rollen gehören zu Fid, eine ist Ihre eigene.'
        : `Sieben Rollen gehören zu Fid, ${own} sind Ihre eigenen.`,
  intro:
    'Rechte zählen nur zusammen: Niemand hat, was keine Rolle gibt. Die mitgelieferten Rollen bleiben, wie sie sind; eigene stehen daneben.',
  add: 'Rolle hinzufügen',
  addGroup: 'Gruppe hinzufügen',
  newRole: 'Neue Rolle',
  newGroup: 'Neue Gruppe',
  explain: 'Wer darf …?',
  export: 'Ausgeben',
  import: 'Einlesen',
  versions: 'Fassungen',
  sheet: 'Was jede Rolle gibt',
  right: 'Recht',
  ofPeople: 'Mit Personen',
  ofFirm: 'Mit Sachen der Firma',
  ofFields: 'Mit Feldern',
  fieldsNote: 'Was ein Feld einer Rolle gibt, steht beim Feld selbst und gilt für alle, die die Rolle erreicht.',
  holders: (n) => (n === 0 ? 'niemand hat sie' : n === 1 ? 'eine Person hat sie' : `${n} Personen haben sie`),
  ships: 'gehört zu Fid',
  reaches: {
    all: 'alle',
    self: 'sich selbst',
    direct: 'die eigenen Leute',
    reports: 'alle darunter',
    tasks: 'für die es eine Aufgabe gibt',
    site: (name) => `Standort ${name}`,
    department: (name) => `Abteilung ${name} und darunter`,
    group: (name) => `Gruppe ${name}`
  },
  yes: 'ja',
  no: 'nein',
  section: (given) =>
    given.seen === 0
      ? ''
      : given.edited === given.of
        ? 'ändert alle'
        : given.seen === given.of && given.edited === 0
          ? 'sieht alle'
          : given.edited === 0
            ? `sieht ${given.seen} von ${given.of}`
            : `sieht ${given.seen}, ändert ${given.edited} von ${given.of}`,
  compare: {
    title: 'Vergleichen mit',
    only: (role) => `Nur ${role}`,
    nothing: 'Nichts, was die andere nicht gibt.'
  },
  role: {
    secondFactor: 'Wer sie hat, weist sich mit einem zweiten Faktor aus',
    name: 'Name auf Englisch',
    nameDe: 'Name',
    key: 'In Feldern und Dateien heißt sie',
    fields: 'Was Felder ihr geben, gilt für',
    fieldsNone: 'niemanden',
    addReach: 'Hinzufügen, für wen es gilt',
    rights: 'Sie darf',
    addRight: 'Recht hinzufügen',
    none: 'Noch nichts. Fügen Sie hinzu, was sie darf.',
    of: 'bei',
    remove: 'Wegnehmen',
    removeRole: 'Rolle wegnehmen',
    like: 'Eine wie diese anlegen',
    likeName: (name) => `${name}, eigene`,
    readOnly: 'Diese Rolle gehört zu Fid und bleibt, wie sie ist. Legen Sie eine wie diese an und ändern Sie die.',
    close: 'Schließen',
    see: (what) => `${what} sehen`,
    ask: (what) => `${what} anfragen`,
    edit: (what) => `${what} ändern`,
    sectionOf: (name) => `den Abschnitt ${name}`,
    everything: 'Alles sehen, was es gibt'
  },
  group: {
    title: 'Gruppen von Personen',
    none: 'Noch keine Gruppe. Eine Gruppe entsteht aus dem, was in Akten steht, etwa Stelle oder Standort; Rechte erreichen sie, und Rollen gelten für sie nach Regel.',
    people: (n) => (n === 1 ? 'eine Person' : `${n} Personen`),
    when: 'Wer darin ist',
    everybody: 'niemand, solange nichts gesagt ist',
    roles: 'Wer darin ist, hat',
    noRoles: 'keine Rolle nach Regel',
    remove: 'Gruppe wegnehmen',
    rule: (roles) => `hat nach Regel: ${roles}`
  },
  draft: {
    notLive: 'Noch gilt nichts davon.',
    by: (name) => `Gesichert von ${name}.`,
    saving: 'Wird gesichert …',
    saved: 'Gesichert.',
    wrong: 'Etwas darin würde nicht gehen:',
    review: 'Was es gibt und nimmt',
    discard: 'Verwerfen',
    discardSure: 'Den Entwurf der Rollen verwerfen?',
    other: (name) => `${name} hat den Entwurf inzwischen gesichert.`,
    theirs: 'Diesen nehmen',
    ours: 'Meinen behalten'
  },
  review: {
    proved: (role) => `${role}: von da an mit zweitem Faktor`,
    noLongerProved: (role) => `${role}: nicht mehr mit zweitem Faktor`,
    title: 'Was es gibt und nimmt',
    nothing: 'Nichts ist anders, als es gilt.',
    roles: 'Je Rolle',
    people: 'Je Person',
    nobody: 'Niemand hat dadurch andere Rechte.',
    groups: 'Je Gruppe',
    isNew: 'neu, noch hat sie niemand',
    isGone: 'wird allen genommen, die sie haben',
    gains: 'bekommt',
    loses: 'verliert',
    asSet: (role) => `was Felder der Rolle ${role} geben`,
    counts: (before, after) => `jetzt ${before} Personen, dann ${after}`,
    coming: (names) => `hinein: ${names}`,
    going: (names) => `heraus: ${names}`,
    widens: 'Jemand könnte dadurch mehr bekommen. Eine zweite Person muss zustimmen.',
    waits: 'Sie haben darum gebeten. Es wartet auf die Zustimmung von jemand anderem.',
    asksYou: (name) => `${name} bittet Sie um Zustimmung.`,
    own: 'Sie selbst bekämen dadurch mehr; zustimmen muss jemand, auf den das nicht zutrifft.',
    why: 'Warum',
    act: 'Gelten lassen',
    ask: 'Darum bitten',
    agree: 'Zustimmen und gelten lassen',
    cancel: 'Abbrechen',
    done: (version) => `Fassung ${version} gilt.`,
    asked: 'Darum gebeten. Jemand anders muss zustimmen.'
  },
  explained: {
    title: 'Wer darf, und warum',
    what: 'Was',
    person: 'Bei wem',
    anybody: 'irgendwem',
    nobody: 'Niemand, der sich anmelden kann, darf es.',
    may: (n) => (n === 1 ? 'Eine Person darf.' : `${n} Personen dürfen.`),
    because: (role, reach) => `als ${role}: ${reach}`,
    byRule: (group) => (group === null ? 'nach Regel, arbeitet hier' : `nach Regel, in der Gruppe ${group}`)
  },
  version: (n, by, when) => `Fassung ${n}, von ${by}, ${when}`,
  askedBy: (name) => `erbeten von ${name}`,
  noVersions: 'Bisher gilt nichts Eigenes.',
  takeVersion: 'Als Entwurf nehmen'
};

import type { Words } from './en';

export const de: Words = {
  account: {
    title: 'Dein Konto',
    sessions: 'Wo du angemeldet bist',
    intro: 'Wenn etwas davon nicht du bist, beende alle und ändere dein Passwort.',
    here: 'dieser Browser',
    since: (when) => `seit ${when}`,
    until: (when) => `spätestens bis ${when}`,
    end: 'Beenden',
    endAll: 'Alle beenden, auch diese',
    ended: 'Diese Sitzung ist beendet.',
    password: 'Dein Passwort ändern',
    passwordNote:
      'Mindestens 12 Zeichen. Am besten mehrere Wörter, die nicht zusammengehören; Großbuchstaben, Ziffern und Zeichen braucht es nicht.',
    current: 'Jetziges Passwort',
    next: 'Neues Passwort',
    again: 'Neues Passwort noch einmal',
    differ: 'Die beiden sind nicht gleich.',
    change: 'Ändern',
    changed: 'Dein Passwort ist geändert. Alle deine anderen Sitzungen sind beendet.'
  },
  trail: {
    title: 'Verwaltung',
    news: 'Was die Sicherheit betrifft, das Neueste zuerst.',
    intro: 'Jeder Eintrag ist ein Glied einer Kette: Keiner lässt sich unbemerkt ändern oder herausnehmen. ./fid audit verify beweist es.',
    only: 'Nur',
    all: 'alles',
    when: 'Wann',
    who: 'Wer',
    what: 'Was',
    about: 'Worum',
    from: 'Von wo',
    nobody: 'ein Konto, das es nicht gibt',
    more: 'Frühere',
    empty: 'Von dieser Art ist noch nichts geschehen.',
    actions: {
      'session.begun': 'hat sich angemeldet',
      'session.ended': 'hat sich abgemeldet',
      'session.refused': 'falsches Passwort',
      'session.slowed': 'falsches Passwort, verlangsamt',
      'session.allEnded': 'hat alle Sitzungen beendet',
      'password.changed': 'hat das Passwort geändert',
      'access.refused': 'wurde abgewiesen',
      'data.exported': 'hat Daten herausgeholt',
      'field.revealed': 'hat einen versiegelten Wert angesehen',
      'fields.published': 'hat Felder veröffentlicht',
      'fields.widenAsked': 'bat darum, geschützte Felder zu öffnen',
      'feed.address': 'hat die Bewerberquelle geändert',
      'firm.created': 'hat die Firma eingerichtet'
    }
  }
};

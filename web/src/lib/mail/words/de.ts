import { word } from '$lib/text/counted/de';
import type { en } from './en';

/** What Mail says in German. */
export const de: typeof en = {
  title: 'Post',
  link: 'Post',
  people: (n, day) =>
    n === 0
      ? `Am ${day} wird niemandem geschrieben.`
      : n === 1
        ? `Am ${day} wird einer Person geschrieben.`
        : `Am ${day} wird ${word(n)} Personen geschrieben.`,
  at: (time) => `ab ${time} Uhr`,
  day: 'Am',
  noServer: 'Es ist kein Mailserver gesetzt, deshalb geht nichts hinaus. Wer diesen Server betreibt, setzt Fid:Mail:Server.',
  paused: 'Erinnerungen ruhen in der ganzen Firma: Es geht nichts hinaus.',
  kinds: { escalation: 'lange verspätet', overdue: 'verspätet', due: 'fällig', before: 'bald fällig', opened: 'neu: die Stufe ist offen' },
  days: (n) =>
    n === 0
      ? 'an diesem Tag fällig'
      : n < 0
        ? n === -1
          ? 'am nächsten Arbeitstag fällig'
          : `in ${-n} Arbeitstagen fällig`
        : n === 1
          ? 'einen Arbeitstag verspätet'
          : `${n} Arbeitstage verspätet`,
  for: (hire) => `für ${hire}`,
  of: (owner) => `zuständig ${owner}`,
  waiting: 'Geht nicht hinaus',
  why: {
    'rest-day': 'hat an diesem Tag frei; es geht am nächsten Arbeitstag hinaus',
    'no-manager': 'hat keine Führungskraft, die sich anmelden kann; nur sie selbst wird erinnert'
  },
  unowned: (n) =>
    n === 1 ? 'Eine Aufgabe hat niemanden, der erinnert werden könnte' : `${word(n)} Aufgaben haben niemanden, der erinnert werden könnte`,
  unownedWhy: 'Die Zuständigen können sich nicht anmelden, oder ein Team hat keine Mitglieder.',
  settings: 'Wann Fid erinnert',
  before: 'Arbeitstage vor der Fälligkeit',
  beforeNote: 'etwa 5, 1',
  onDue: 'Am Tag der Fälligkeit',
  every: 'Danach alle … Arbeitstage',
  most: 'Höchstens so oft',
  escalateAfter: 'Führungskraft verständigen nach',
  escalateNote: 'Arbeitstagen; leer für nie',
  time: 'Ab',
  pause: 'Alle Erinnerungen ruhen lassen',
  save: 'Sichern',
  saved: 'Es ist gesichert.',
  sent: 'Was hinausging',
  none: 'Noch ist nichts hinausgegangen.',
  columns: ['Wann', 'An', 'Betreff', 'Stand'],
  states: { sent: 'vom Mailserver angenommen', waits: 'wartet', refused: 'kam zurück' },
  tried: (why) => `es wird wieder versucht: ${why}`,
  back: {
    news: (n) => (n === 1 ? 'Eine Nachricht kam zurück. Wem sie galt, weiß nichts davon.' : `${word(n)} Nachrichten kamen zurück.`),
    again: 'An die jetzige Adresse senden',
    aside: 'Beiseitelegen',
    account: 'Adresse berichtigen',
    sent: 'Sie geht noch einmal hinaus.',
    laid: 'Sie ist beiseitegelegt.'
  },
  texts: {
    news: (own) =>
      own === 0
        ? 'Fid schreibt mit seinen mitgelieferten Worten.'
        : own === 1
          ? 'Ein Text ist Ihr eigener.'
          : `${word(own)} Texte sind Ihre eigenen.`,
    kind: 'Nachricht',
    language: 'auf',
    languages: { en: 'Englisch', de: 'Deutsch' },
    text: 'Text der Nachricht',
    subject: 'Betreff',
    plain: 'Reiner Text',
    html: 'HTML',
    fields: 'Einsetzen …',
    save: 'Speichern',
    saved: 'Gespeichert. Die nächste Nachricht geht so hinaus.',
    shipped: 'Zurück zum mitgelieferten Text',
    asShipped: 'Wie mitgeliefert.',
    unsaved: 'Noch nicht gespeichert.',
    own: (by, day) => `Ihr eigener, von ${by} am ${day}.`,
    looks: 'Wie sie aussieht',
    hire: 'Im Fall von',
    shownAs: 'Gezeigt als',
    missing: (names) => `Er nennt, was es nicht gibt: ${names}.`
  }
};

import { days, workingDays } from '$lib/text/counted/de';
import type { en } from './en';

/** What Where it stalls says in German. */
export const de: typeof en = {
  title: 'Wo es hakt',
  link: 'Wo es hakt',
  holdsUp: (name, tenths) => `${name} hält ${tenths === 10 ? 'jeden Beginn' : `${tenths} von zehn`} auf.`,
  takes: (took, said) => `Es dauert ${took} Arbeitstage, nicht ${said}.`,
  nothing: 'Nichts hat einen Beginn aufgehalten.',
  none: 'In dieser Zeit wurde nichts erledigt.',
  by: { label: 'Zeigen nach', task: 'Nach Aufgabe', owner: 'Nach Zuständigen', template: 'Nach Vorlage' },
  from: 'Erledigt von',
  to: 'bis',
  hires: (n) => (n === 1 ? 'eine Einstellung' : `${n} Einstellungen`),
  columns: {
    what: 'Was',
    days: 'Arbeitstage',
    half: 'die Hälfte in',
    nine: '9 von 10',
    late: 'zu spät',
    heldUp: 'hielt auf',
    template: 'in der Vorlage'
  },
  count: (n, open) => [`${n} erledigt`, open > 0 ? `${open} offen` : ''].filter(Boolean).join(' · '),
  spread: (p10, p25, half, p75, p90, said) =>
    `Eine von zehn dauerte bis ${p10}, ein Viertel bis ${p25}, die Hälfte bis ${half}, drei Viertel bis ${p75}, neun von zehn bis ${p90} Arbeitstage.${said === null ? '' : ` Die Vorlage sagt ${said}.`}`,
  share: (percent) => `${percent} %`,
  change: (work, suggested) => `${work} → ${days(suggested)}`,
  within: (n) => `8 von 10 waren in ${workingDays(n)} erledigt.`,
  would: (n, newly, of) =>
    of === 0
      ? 'Bei keiner laufenden Einstellung ist sie offen.'
      : `Mit ${n} in der Vorlage würde ${newly === 0 ? 'keine' : newly} von ${of} laufenden Einstellungen jetzt zeigen, dass es knapp wird.`,
  wedge: 'Der Keil zeigt, was die Vorlage verspricht, der Strich, was die Hälfte brauchte.',
  behind: (n) => (n === 1 ? 'Die eine dahinter' : `Die ${n} dahinter`),
  put: (n) => `${n} in einen Entwurf`,
  drafted: (names) => `Es steht in einem Entwurf von ${names}.`,
  open: 'Zum Entwurf',
  list: {
    hire: 'Einstellung',
    task: 'Aufgabe',
    possible: 'Konnte beginnen',
    done: 'Erledigt',
    days: 'Tage',
    stillOpen: 'offen',
    heldUp: 'hielt auf',
    starts: (day) => `erster Tag ${day}`
  },
  close: 'Schließen'
};

import { text } from '$lib/text/index.svelte';

/** Names of fields where only their keys are at hand; the record's own labels come with it. */
const labels: Record<string, [en: string, de: string]> = {
  given_name: ['given name', 'Vorname'],
  family_name: ['family name', 'Nachname'],
  birth_date: ['date of birth', 'Geburtsdatum'],
  email: ['e-mail', 'E-Mail'],
  phone: ['telephone', 'Telefon'],
  emergency_name: ['emergency contact', 'Notfallkontakt'],
  emergency_phone: ['emergency telephone', 'Notfalltelefon'],
  job: ['job', 'Stelle'],
  department: ['department', 'Abteilung'],
  site: ['site', 'Standort'],
  manager: ['manager', 'Führungskraft'],
  kind: ['kind', 'Art'],
  start_date: ['start', 'Beginn'],
  cost_centre: ['cost centre', 'Kostenstelle'],
  pay_group: ['pay group', 'Abrechnungsgruppe'],
  paid_by: ['way of payment', 'Art der Bezahlung'],
  pay_rate: ['pay rate', 'Satz'],
  weekly_hours: ['weekly hours', 'Wochenstunden'],
  badge: ['badge', 'Ausweis'],
  clock_device: ['clock device', 'Terminal'],
  shift_pattern: ['shift pattern', 'Schichtmuster'],
  holiday_calendar: ['holiday calendar', 'Feiertagskalender']
};

/** Within a sentence. */
export const fieldLabel = (key: string) => labels[key]?.[text.language === 'de' ? 1 : 0] ?? key;

/** Over a field. */
export const fieldTitle = (key: string) => fieldLabel(key).replace(/^./u, (c) => c.toLocaleUpperCase());

import { dateFormat } from './formats';

/** Dates as ISO texts, and days as whole numbers for drawing: there is no time of day in a plan. */
const day = 86_400_000;

export const dayNumber = (iso: string) => Math.round(Date.parse(iso + 'T00:00:00Z') / day);

export const isoDay = (n: number) => new Date(n * day).toISOString().slice(0, 10);

/** 0 is Monday. */
const weekday = (n: number) => (((n + 3) % 7) + 7) % 7;

export const mondayOf = (n: number) => n - weekday(n);

const parts = (iso: string, locale: string, options: Intl.DateTimeFormatOptions) =>
  Object.fromEntries(
    dateFormat(locale, { ...options, timeZone: 'UTC' })
      .formatToParts(Date.parse(iso + 'T00:00:00Z'))
      .map((p) => [p.type, p.value])
  );

/** "Mon 8 Mar", in German "Mo 8. März"; with the year when it is not the present one. */
export function showDay(iso: string, today: string, locale: string): string {
  const p = parts(iso, locale, { weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' });
  const year = iso.slice(0, 4) === today.slice(0, 4) ? '' : ` ${p.year}`;
  return `${p.weekday?.replace('.', '')} ${dayMonth(iso, locale)}${year}`;
}

/** "8 Mar", in German "8. März". */
export function dayMonth(iso: string, locale: string): string {
  const p = parts(iso, locale, { day: 'numeric', month: 'short' });
  return locale.startsWith('de') ? `${p.day}. ${p.month}` : `${p.day} ${p.month}`;
}

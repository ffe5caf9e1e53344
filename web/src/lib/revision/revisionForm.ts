import type { Api } from '$lib/api/client';
import { decimal } from '$lib/text/decimal';

/** A rule for a group's pay as it is typed. Codes of list entries are empty for whichever. */
export interface RevisionForm {
  grade: string;
  job: string;
  site: string;
  payGroup: string;
  percent: string;
  atLeast: string;
  upToBand: boolean;
  from: string | null;
}

/** A form in which nothing is said but a day: the first of the month after today. */
export function emptyForm(today: string): RevisionForm {
  const [year, month] = today.split('-').map(Number) as [number, number];
  const from = month === 12 ? `${year + 1}-01-01` : `${year}-${String(month + 1).padStart(2, '0')}-01`;
  return { grade: '', job: '', site: '', payGroup: '', percent: '', atLeast: '', upToBand: true, from };
}

/** What is typed that is no number. */
export const notNumbers = (form: RevisionForm) =>
  (['percent', 'atLeast'] as const).filter((key) => form[key].trim() !== '' && decimal(form[key]) === undefined);

/** What the server is asked; undefined while there is no rule or no day yet. */
export function asked(form: RevisionForm): Api['RevisionAsked'] | undefined {
  const [percent, atLeastHourly] = [decimal(form.percent) ?? 0, decimal(form.atLeast) ?? 0];
  if (form.from === null || notNumbers(form).length > 0 || (percent === 0 && atLeastHourly === 0)) return undefined;
  const group = { grade: form.grade || null, job: form.job || null, site: form.site || null, payGroup: form.payGroup || null };
  return { group, percent, atLeastHourly, upToBand: form.upToBand, from: form.from };
}

/** Where the same comes as a sheet. */
export function sheetOf(of: Api['RevisionAsked'], language: string): string {
  const query = new URLSearchParams({
    from: of.from,
    percent: String(of.percent),
    atLeastHourly: String(of.atLeastHourly),
    upToBand: String(of.upToBand),
    language
  });
  for (const [name, code] of Object.entries(of.group)) if (code) query.set(name, code);
  return `/api/pay-revisions/sheet.xlsx?${query}`;
}

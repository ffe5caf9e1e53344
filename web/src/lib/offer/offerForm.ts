import type { Api } from '$lib/api/client';
import { decimal } from '$lib/text/decimal';

/** A form of an offer as it is typed. */
export interface OfferForm {
  rate: string;
  paidBy: string;
  hours: string;
  allowance: string;
  allowanceFor: string;
  start: string | null;
}

/** The numbers of a form, by the field of the record each is for. */
const numbers = { rate: 'pay_rate', hours: 'weekly_hours', allowance: 'allowance' } as const;

/** What is typed that is no number. */
export const notNumbers = (form: OfferForm) =>
  (Object.keys(numbers) as (keyof typeof numbers)[]).filter((key) => form[key].trim() !== '' && decimal(form[key]) === undefined);

/** The form that says what the record holds. */
export function formOf(record: Api['RecordResponse'], shown: (n: number) => string): OfferForm {
  const values = new Map(record.sections.flatMap((s) => s.fields).map((f) => [f.key, f.value]));
  const text = (key: string) => {
    const value = values.get(key);
    return typeof value === 'number' ? shown(value) : typeof value === 'string' ? value : '';
  };
  return {
    rate: text('pay_rate'),
    paidBy: text('paid_by'),
    hours: text('weekly_hours'),
    allowance: text('allowance'),
    allowanceFor: text('allowance_for'),
    start: record.start
  };
}

/** What the server is asked of a form: only what differs from the record, so that the rest follows it. */
export function asked(form: OfferForm, held: OfferForm): Api['OfferForm'] {
  const changes: Api['OfferForm']['changes'] = {};
  for (const [key, field] of Object.entries(numbers) as [keyof typeof numbers, string][])
    if (form[key].trim() !== held[key].trim()) changes[field] = decimal(form[key]) ?? null;
  if (form.paidBy !== held.paidBy) changes.paid_by = form.paidBy || null;
  if (form.allowanceFor.trim() !== held.allowanceFor.trim()) changes.allowance_for = form.allowanceFor.trim() || null;
  return { changes, start: form.start === held.start ? null : form.start };
}

/** Whether taking it over would change anything. */
export const differs = (form: OfferForm, held: OfferForm) => {
  const { changes, start } = asked(form, held);
  return start !== null || Object.keys(changes).length > 0;
};

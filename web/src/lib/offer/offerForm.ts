import type { Api } from '$lib/api/client';
import { addressIn, allFields } from '$lib/record/rows';
import { decimal } from '$lib/text/decimal';

/** A form of an offer as it is typed. */
export interface OfferForm {
  rate: string;
  paidBy: string;
  hours: string;
  allowance: string;
  allowanceFor: string;
  /** The row of the record that says the allowance; a new one where there is none. */
  allowanceRow: string;
  start: string | null;
}

/** The numbers of a form, by the field of the record each is for. */
const numbers = { rate: 'pay_rate', hours: 'weekly_hours' } as const;
const elements = 'pay_elements';

/** What is typed that is no number. */
export const notNumbers = (form: OfferForm) =>
  ([...Object.keys(numbers), 'allowance'] as (keyof typeof numbers | 'allowance')[]).filter(
    (key) => form[key].trim() !== '' && decimal(form[key]) === undefined
  );

/** The address of a column in a row of what is paid beside base pay. */
export const cell = (column: string, row: string) => addressIn(`${elements}.${column}`, row);

/** The form that says what the record holds. */
export function formOf(record: Api['RecordResponse'], shown: (n: number) => string): OfferForm {
  const values = new Map(allFields(record).map((f) => [f.key, f.value]));
  const rows = record.sections.flatMap((s) => s.fields).find((f) => f.key === elements)?.rows?.rows ?? [];
  const isAllowance = (row: string) =>
    values.get(cell('kind', row)) === 'allowance' && !(String(values.get(cell('until', row)) ?? '9999') < record.today);
  const allowanceRow = rows.find((r) => isAllowance(r.id))?.id ?? crypto.randomUUID();
  const text = (key: string) => {
    const value = values.get(key);
    return typeof value === 'number' ? shown(value) : typeof value === 'string' ? value : '';
  };
  return {
    rate: text('pay_rate'),
    paidBy: text('paid_by'),
    hours: text('weekly_hours'),
    allowance: text(cell('amount', allowanceRow)),
    allowanceFor: text(cell('note', allowanceRow)),
    allowanceRow,
    start: record.start
  };
}

/** What the server is asked of a form: only what differs from the record, so that the rest follows it. */
export function asked(form: OfferForm, held: OfferForm): Api['OfferForm'] {
  const changes: Api['OfferForm']['changes'] = {};
  for (const [key, field] of Object.entries(numbers) as [keyof typeof numbers, string][])
    if (form[key].trim() !== held[key].trim()) changes[field] = decimal(form[key]) ?? null;
  if (form.paidBy !== held.paidBy) changes.paid_by = form.paidBy || null;
  const { allowanceRow: row } = form;
  const [amount, why] = [form.allowance.trim(), form.allowanceFor.trim()];
  if (amount === '') {
    if (held.allowance.trim() !== '') changes[addressIn(elements, row)] = null;
  } else {
    if (held.allowance.trim() === '') changes[cell('kind', row)] = 'allowance';
    if (amount !== held.allowance.trim()) changes[cell('amount', row)] = decimal(amount) ?? null;
    if (why !== held.allowanceFor.trim()) changes[cell('note', row)] = why || null;
  }
  return { changes, start: form.start === held.start ? null : form.start };
}

/** Whether taking it over would change anything. */
export const differs = (form: OfferForm, held: OfferForm) => {
  const { changes, start } = asked(form, held);
  return start !== null || Object.keys(changes).length > 0;
};

/** A holiday as it is kept. When it falls is written "2027-05-17", "--03-17", "--05 1MO" (RFC 5545 weekday numbers) or "easter+1". */
export interface Holiday {
  on: string;
  name: string;
  days: number;
}

export type Kind = 'once' | 'yearly' | 'weekday' | 'easter';

export const weekdays = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'];

export const kindOf = (on: string): Kind =>
  on.startsWith('easter') ? 'easter' : on.startsWith('--') ? (on.includes(' ') ? 'weekday' : 'yearly') : 'once';

const two = (n: number) => String(n).padStart(2, '0');

/** The parts of a rule, with something sensible where it has none. */
export function partsOf(on: string, today: string) {
  const easter = /^easter([+-]\d+)?$/.exec(on);
  const weekday = /^--(\d\d) (-?\d)([A-Z]{2})$/.exec(on);
  const yearly = /^--(\d\d)-(\d\d)$/.exec(on);
  const [, month, day] = today.split('-').map(Number) as [number, number, number];
  return {
    date: kindOf(on) === 'once' ? on : today,
    month: Number(weekday?.[1] ?? yearly?.[1] ?? month),
    day: Number(yearly?.[2] ?? day),
    nth: weekday?.[2] ?? '1',
    weekday: weekday?.[3] ?? 'MO',
    easter: Number(easter?.[1] ?? 0)
  };
}

export type RuleParts = ReturnType<typeof partsOf>;

export function ruleOf(kind: Kind, parts: RuleParts): string {
  switch (kind) {
    case 'once':
      return parts.date;
    case 'yearly':
      return `--${two(parts.month)}-${two(parts.day)}`;
    case 'weekday':
      return `--${two(parts.month)} ${parts.nth}${parts.weekday}`;
    case 'easter':
      return parts.easter === 0 ? 'easter' : `easter${parts.easter > 0 ? '+' : ''}${parts.easter}`;
  }
}

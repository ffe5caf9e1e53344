import type { Api } from '$lib/api/client';
import { text } from '$lib/text/index.svelte';
import { named } from '$lib/text/named';
import { words } from './words';

/** "3 people, 1 template" – who uses an entry; empty for nobody. */
export function usageText(usage: Api['UsageCount'] | null | undefined): string {
  if (!usage) return '';
  const w = words();
  return [
    usage.people > 0 ? w.people(usage.people) : '',
    usage.templates > 0 ? w.templates(usage.templates) : '',
    usage.hires > 0 ? w.hires(usage.hires) : '',
    usage.entries > 0 ? w.otherEntries(usage.entries) : ''
  ]
    .filter((s) => s !== '')
    .join(', ');
}

/** A value of a column as a table shows it. */
export function cellText(column: Api['ColumnResponse'], value: unknown, options: Api['ListOption'][]): string {
  const w = words();
  if (value === null || value === undefined || value === '') return '';
  const name = (code: string) => {
    const found = options.find((o) => o.list === column.list && o.code === code);
    return found ? named(found) : code;
  };
  switch (column.type) {
    case 'entry':
      return name(String(value));
    case 'entries':
      return (value as string[]).map(name).join(', ');
    case 'choice':
      return column.options?.find((o) => o.value === value)?.label[text.language] ?? String(value);
    case 'yesNo':
      return value === true ? w.yes : w.no;
    case 'date':
      return text.day(String(value));
    case 'number':
    case 'whole':
      return text.number(Number(value));
    case 'bands': {
      const band = (value as { from: string; min: number; mid: number; max: number; per: string }[])
        .filter((b) => b.from <= text.today)
        .sort((a, b) => (a.from < b.from ? 1 : -1))[0];
      return band
        ? `${text.number(band.min)} – ${text.number(band.mid)} – ${text.number(band.max)} / ${band.per === 'hour' ? w.band.hour : w.band.year}`
        : '';
    }
    case 'requirements':
      return (value as { certificate: string; essential: boolean }[]).map((n) => name(n.certificate)).join(', ');
    case 'holidays':
      return String((value as unknown[]).length);
    case 'shifts':
      return (value as { letter: string; start: string; end: string }[]).map((s) => `${s.letter} ${s.start}–${s.end}`).join(', ');
    case 'options':
      return (value as { en: string; de?: string; retired?: boolean }[])
        .filter((o) => !o.retired)
        .map((o) => (text.language === 'de' && o.de) || o.en)
        .join(', ');
    case 'restDays':
      return [...String(value)]
        .map((c, i) => (c === '1' ? w.rest.days[i]! : ''))
        .filter(Boolean)
        .join(', ');
    case 'brackets':
      return (value as { upTo?: number; percent: number }[]).map((b) => `${text.number(b.percent)} %`).join(', ');
    case 'heads':
    case 'rates':
      return String((value as unknown[]).length);
    default:
      return String(value).split('\n').join(', ');
  }
}

import { text } from '$lib/text/index.svelte';

/** A stored value as people read it. */
export function shown(value: { value: unknown; display: string | null } | null, nothing: string): string {
  if (!value) return nothing;
  if (value.display) return value.display;
  const raw = value.value;
  if (typeof raw === 'boolean') return raw ? text.t.common.yes : text.t.common.no;
  if (typeof raw === 'number') return text.number(raw);
  if (Array.isArray(raw)) return raw.join(', ');
  const said = String(raw ?? nothing);
  return /^\d{4}-\d\d-\d\d$/.test(said) ? text.day(said) : said;
}

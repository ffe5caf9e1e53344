import type { Api } from '$lib/api/client';
import { text } from '$lib/text/index.svelte';
import { nameOf } from './configuration';
import type { Drafting } from './drafting.svelte';
import { words } from './words';

/** A finding in the reader's language: the server's sentence is English, and stands wherever there is no other. */
export function sentenceOf(finding: Api['ReviewFinding'], drafting: Drafting): string {
  // Of a column, what is said is said of it, and not of its rows.
  const [first, second] = finding.fields;
  const about = second?.startsWith(`${first}.`) ? finding.fields.slice(1) : finding.fields;
  const names = about.map((key) => {
    const [rows, column] = key.split('.');
    const whole = drafting.find(rows!);
    const field = column === undefined ? whole : whole?.columns?.find((c) => c.key === column);
    return `„${field ? nameOf(field, text.language) : key}“`;
  });
  return words().findings[finding.code]?.(names, finding.suggestion ?? '') ?? finding.message;
}

/** What the server could not read of a draft, said of the field and not of the document. */
export function unreadable(error: { pointer: string; detail: string }, drafting: Drafting): string {
  const [, at, part] = /^\/configuration\/fields\/(\d+)(?:\/(.*))?$/.exec(error.pointer) ?? [];
  const field = at === undefined ? undefined : drafting.configuration.fields[Number(at)];
  if (!field) return error.detail;
  const w = words();
  const said = part !== undefined && /^options\/\d+\/value$/.test(part) ? w.chooseValue : error.detail;
  return `${nameOf(field, text.language)}: ${said}`;
}

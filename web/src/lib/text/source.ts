import type { Api } from '$lib/api/client';
import { fieldTitle } from './fieldLabels.svelte';
import { text } from './index.svelte';

/** Where a value came from, in a few words. */
export function sourceText(source: Api['ValueSource']): string {
  const t = text.t.source;
  switch (source.kind) {
    case 'template':
    case 'addOn':
      return t.template(source.name ?? '', source.version ?? 0);
    case 'rule':
      return t.rule(fieldTitle(source.name ?? ''));
    case 'job':
      return t.job(source.name ?? '');
    case 'like':
      return t.like(source.name ?? '');
    case 'typed':
    case 'person':
    case 'reused':
    case 'recruiting':
    case 'merged':
    case 'site':
    case 'department':
    case 'departmentHead':
    case 'seat':
    case 'list':
    case 'nextFree':
    case 'hire':
    case 'import':
    case 'default':
      return t[source.kind];
    default:
      return source.kind;
  }
}

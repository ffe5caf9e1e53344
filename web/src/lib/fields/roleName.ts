import type { Api } from '$lib/api/client';
import { text } from '$lib/text/index.svelte';
import { words } from './words';

/** What a role is called beside fields: in short where it ships, by its own name where it is the firm's. */
export function roleName(role: string, labels: Api['FieldsResponse']['roleLabels'] = {}): string {
  const label = labels[role];
  return words().roles[role] ?? (label ? (text.language === 'de' ? label.de : label.en) : role);
}

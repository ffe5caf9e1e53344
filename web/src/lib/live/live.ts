import { adminKeys } from '$lib/admin/queries';
import { again } from '$lib/api/again';
import { session } from '$lib/api/session.svelte';
import { fieldKeys } from '$lib/fields/queries';
import { hireKeys } from '$lib/hires/queries';
import { importKeys } from '$lib/exchange/queries';
import { listKeys } from '$lib/lists/queries';
import { payCheckKeys } from '$lib/payCheck/queries';
import { revisionKeys } from '$lib/revision/queries';
import { recordKeys } from '$lib/record/queries';
import { requestKeys } from '$lib/requests/queries';
import { taskKeys } from '$lib/tasks/queries';
import { templateKeys } from '$lib/templates/queries';
import { loadFieldLabels } from '$lib/text/fieldLabels.svelte';
import type { QueryClient, QueryKey } from '@tanstack/svelte-query';

/**
 * Hears from the server what changed and has it fetched again. Answers the function that stops listening.
 * EventSource comes back by itself after a break; the server then says "all", since something may have been missed.
 */
export function listen(client: QueryClient): () => void {
  let source = open(client);
  // A page that the browser keeps for going back would keep its line too, and a browser has only six to a server.
  const hide = () => source.close();
  const show = (event: PageTransitionEvent) => {
    if (event.persisted) source = open(client);
  };
  addEventListener('pagehide', hide);
  addEventListener('pageshow', show);
  return () => {
    removeEventListener('pagehide', hide);
    removeEventListener('pageshow', show);
    source.close();
  };
}

function open(client: QueryClient): EventSource {
  const source = new EventSource('/api/live');
  source.addEventListener('change', (event: MessageEvent<string>) => void hear(client, event.data));
  return source;
}

/** Has fetched again what a change makes stale, as the server tells of it: "lists", "hire:ID", "all". */
export async function hear(client: QueryClient, change: string) {
  const [kind, id] = change.split(':') as [string, string | undefined];
  // With other rights everything can look different, and what may no longer be seen is forgotten; with the same, only Admin does.
  if (kind === 'rights' && (await session.renewed())) await client.resetQueries();
  else if (kind === 'all') await client.invalidateQueries();
  else await again(client, ...staleBy(kind, id));
  if (kind === 'all' || kind === 'fields') await loadFieldLabels();
}

function staleBy(kind: string, id: string | undefined): QueryKey[] {
  switch (kind) {
    case 'lists':
      return [listKeys.all, listKeys.previews, payCheckKeys.all];
    case 'pay':
      return [payCheckKeys.all, revisionKeys.all, taskKeys.mine];
    case 'fields':
      return [fieldKeys.all, recordKeys.all];
    case 'import':
      return [id === undefined ? importKeys.all : importKeys.one(id), importKeys.list];
    case 'rights':
      return [adminKeys.rights, adminKeys.accounts];
    case 'requests':
      // A record shows what is asked for of it.
      return [requestKeys.all, recordKeys.all, payCheckKeys.all];
    case 'absences':
      // Whoever stands in has other tasks, and is asked for their word.
      return [taskKeys.absences, taskKeys.mine, requestKeys.all];
    case 'intake':
      return [hireKeys.intake];
    case 'templates':
      return [templateKeys.all, listKeys.previews];
    case 'hire':
      // A hire's page shows its record, and a record's page its hire.
      return [hireKeys.arrivals, taskKeys.mine, id === undefined ? hireKeys.all : hireKeys.one(id), recordKeys.all, payCheckKeys.all];
    default:
      return [hireKeys.arrivals, taskKeys.mine, hireKeys.all, id === undefined ? recordKeys.all : recordKeys.one(id), payCheckKeys.all];
  }
}

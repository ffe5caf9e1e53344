import type { QueryClient } from '@tanstack/svelte-query';
import { loadFieldLabels } from '$lib/fields/labels.svelte';

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
  source.addEventListener('change', (event: MessageEvent<string>) => {
    const [kind, id] = event.data.split(':');
    const again = (...queryKey: (string | undefined)[]) => void client.invalidateQueries({ queryKey });
    switch (kind) {
      case 'all':
        void loadFieldLabels();
        void client.invalidateQueries({ predicate: (q) => q.queryKey[0] !== 'session' });
        break;
      case 'lists':
        again('lists');
        again('preview');
        break;
      case 'fields':
        again('fields');
        again('record');
        void loadFieldLabels();
        break;
      case 'import':
        again('imports');
        break;
      case 'intake':
        again('intake');
        break;
      default:
        again('arrivals');
        again('tasks');
        again(kind, id);
        // A hire's page shows its record, and a record's page its hire.
        again(kind === 'hire' ? 'record' : 'hire');
    }
  });
  return source;
}

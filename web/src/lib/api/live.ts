import type { QueryClient } from '@tanstack/svelte-query';

/**
 * Hears from the server what changed and has it fetched again. Answers the function that stops listening.
 * EventSource comes back by itself after a break; the server then says "all", since something may have been missed.
 */
export function listen(client: QueryClient): () => void {
  const source = new EventSource('/api/live');
  source.addEventListener('change', (event: MessageEvent<string>) => {
    const [kind, id] = event.data.split(':');
    if (kind === 'all') void client.invalidateQueries({ predicate: (q) => q.queryKey[0] !== 'session' && q.queryKey[0] !== 'lists' });
    else {
      void client.invalidateQueries({ queryKey: ['arrivals'] });
      void client.invalidateQueries({ queryKey: ['tasks'] });
      void client.invalidateQueries({ queryKey: [kind, id] });
      // A hire's page shows its record, and a record's page its hire.
      void client.invalidateQueries({ queryKey: [kind === 'hire' ? 'record' : 'hire'] });
    }
  });
  return () => source.close();
}

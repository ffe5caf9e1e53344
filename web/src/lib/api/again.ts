import type { QueryClient, QueryKey } from '@tanstack/svelte-query';

/** Has what is kept under some keys, and all keys that begin with them, fetched again; done when what is shown of it is there. */
export const again = async (client: QueryClient, ...keys: QueryKey[]) => {
  await Promise.all(keys.map((queryKey) => client.invalidateQueries({ queryKey })));
};

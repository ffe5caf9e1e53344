import { api, data, type Api } from '$lib/api/client';
import { named } from '$lib/text/named';
import { createQuery } from '@tanstack/svelte-query';

/** What pickers offer. */
export const optionsQuery = () =>
  createQuery(() => ({ queryKey: ['lists', 'options'], queryFn: () => data(api.GET('/api/options')), staleTime: 60_000 }));

/** All lists with their columns. */
export const listsQuery = () => createQuery(() => ({ queryKey: ['lists', 'all'], queryFn: () => data(api.GET('/api/lists')) }));

/** A code's name among options; the code itself where it is not known. */
export const nameOf = (options: Api['ListOption'][], list: string, code: string) => {
  const found = options.find((o) => o.list === list && o.code === code);
  return found ? named(found) : code;
};

export const entryPath = (list: string, code: string) => `/lists/${list}/${encodeURIComponent(code)}`;

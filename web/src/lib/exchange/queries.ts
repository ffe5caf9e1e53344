import { api, data } from '$lib/api/client';
import { createQuery } from '@tanstack/svelte-query';

/** The keys under which Exchange keeps what it was told. */
export const importKeys = {
  all: ['imports'] as const,
  list: ['imports', 'all'] as const,
  targets: ['imports', 'targets'] as const,
  one: (id: string) => ['imports', id] as const,
  rows: (id: string, ...shown: unknown[]) => ['imports', id, 'rows', ...shown] as const
};

/** The people, among what sheets go into. */
export const PEOPLE = 'people';

/** The field whose rows a sheet goes into; undefined for what is no rows. */
export const rowsOf = (list: string) => (list.startsWith(`${PEOPLE}.`) ? list.slice(PEOPLE.length + 1) : undefined);

/** What sheets can go into, with their columns. */
export const targetsQuery = () =>
  createQuery(() => ({ queryKey: importKeys.targets, queryFn: () => data(api.GET('/api/imports/targets')) }));

import { api, data } from '$lib/api/client';
import { createQuery } from '@tanstack/svelte-query';

/** The people, among what sheets go into. */
export const PEOPLE = 'people';

/** The field whose rows a sheet goes into; undefined for what is no rows. */
export const rowsOf = (list: string) => (list.startsWith(`${PEOPLE}.`) ? list.slice(PEOPLE.length + 1) : undefined);

/** What sheets can go into, with their columns. */
export const targetsQuery = () =>
  createQuery(() => ({ queryKey: ['imports', 'targets'], queryFn: () => data(api.GET('/api/imports/targets')) }));

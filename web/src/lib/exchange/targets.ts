import { api, data } from '$lib/api/client';
import { createQuery } from '@tanstack/svelte-query';

/** The people, among what sheets go into. */
export const PEOPLE = 'people';

/** What sheets can go into, with their columns. */
export const targetsQuery = () =>
  createQuery(() => ({ queryKey: ['imports', 'targets'], queryFn: () => data(api.GET('/api/imports/targets')) }));

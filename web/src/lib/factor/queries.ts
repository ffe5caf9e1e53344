import { api, data } from '$lib/api/client';

/** The key under which one's own factors are kept. */
export const factorKeys = { own: ['second-factor'] as const, ways: ['sign-in ways'] as const };

/** How else than by a password somebody can sign in. */
export const waysQuery = () => ({ queryKey: factorKeys.ways, queryFn: () => data(api.GET('/api/session/ways')) });

export const factorQuery = () => ({ queryKey: factorKeys.own, queryFn: () => data(api.GET('/api/session/second-factor')) });

import { api, data } from '$lib/api/client';

/** The keys under which Admin keeps what it was told. */
export const adminKeys = {
  accounts: ['accounts'] as const,
  list: (q: string, only: string) => ['accounts', 'list', q, only] as const,
  counts: ['accounts', 'counts'] as const,
  account: (id: string) => ['accounts', 'one', id] as const,
  ofPerson: (employment: string) => ['accounts', 'person', employment] as const,
  jobs: ['jobs'] as const,
  trail: (action: string) => ['trail', action] as const,
  sessions: ['sessions'] as const,
  invitation: (token: string) => ['invitation', token] as const
};

export const accountQuery = (id: string) => ({
  queryKey: adminKeys.account(id),
  queryFn: () => data(api.GET('/api/accounts/{id}', { params: { path: { id } } }))
});

export const personsAccountQuery = (employment: string) => ({
  queryKey: adminKeys.ofPerson(employment),
  queryFn: () => data(api.GET('/api/accounts/of/{id}', { params: { path: { id: employment } } }))
});

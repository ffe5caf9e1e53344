import { api, data } from '$lib/api/client';

/** The keys under which Admin keeps what it was told. */
export const adminKeys = {
  accounts: ['accounts'] as const,
  list: (q: string, only: string) => ['accounts', 'list', q, only] as const,
  counts: ['accounts', 'counts'] as const,
  account: (id: string) => ['accounts', 'one', id] as const,
  ofPerson: (employment: string) => ['accounts', 'person', employment] as const,
  rights: ['rights'] as const,
  explained: (asked: object) => ['rights', 'explained', asked] as const,
  rightsVersions: ['rights', 'versions'] as const,
  jobs: ['jobs'] as const,
  trail: (action: string) => ['trail', action] as const,
  calendarLink: ['calendar-link'] as const,
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

export const rightsQuery = () => ({ queryKey: adminKeys.rights, queryFn: () => data(api.GET('/api/rights')) });

import { api, data } from '$lib/api/client';

/** The keys under which records are kept, with all that is read of one. */
export const recordKeys = {
  all: ['record'] as const,
  one: (id: string) => ['record', id] as const,
  history: (id: string) => ['record', id, 'history'] as const,
  compare: (id: string, ...moments: unknown[]) => ['record', id, 'compare', ...moments] as const,
  readings: (id: string, version: string | undefined, asked: unknown) => ['record', id, 'readings', version, asked] as const,
  route: (id: string, version: string, asked: unknown) => ['record', id, 'route', version, asked] as const,
  merge: (id: string, other: string) => ['merge', id, other] as const
};

export const recordQuery = (id: string) => ({
  queryKey: recordKeys.one(id),
  queryFn: () => data(api.GET('/api/records/{id}', { params: { path: { id } } }))
});

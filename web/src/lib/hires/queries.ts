import { api, data } from '$lib/api/client';

export const hireQuery = (id: string) => ({
  queryKey: ['hire', id],
  queryFn: () => data(api.GET('/api/hires/{id}', { params: { path: { id } } }))
});

export const recordQuery = (id: string) => ({
  queryKey: ['record', id],
  queryFn: () => data(api.GET('/api/records/{id}', { params: { path: { id } } }))
});

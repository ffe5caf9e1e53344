import { api, data } from '$lib/api/client';

/** The keys under which requests are kept. */
export const requestKeys = {
  all: ['requests'] as const,
  waiting: ['requests', 'waiting'] as const,
  effects: (id: string, version: string) => ['requests', 'effects', id, version] as const,
  others: (id: string) => ['requests', 'others', id] as const
};

/** What waits for the user's word, and what they asked for. */
export const waitingQuery = () => ({
  queryKey: requestKeys.waiting,
  queryFn: () => data(api.GET('/api/requests')),
  staleTime: 30_000
});

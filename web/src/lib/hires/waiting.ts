import { api, data } from '$lib/api/client';

/** How many candidates from recruiting wait, and how many hires of theirs are said otherwise by now. */
export const waitingQuery = (enabled: boolean) => ({
  queryKey: ['intake', 'waiting'],
  queryFn: () => data(api.GET('/api/intake/waiting')),
  enabled
});

import { api, data } from '$lib/api/client';

/** How much from recruiting waits for somebody: candidates, and hires of theirs that are said otherwise by now. */
export const waitingQuery = (enabled: boolean) => ({
  queryKey: ['intake', 'waiting'],
  queryFn: () => data(api.GET('/api/intake/waiting')),
  select: (intake: { waiting: number; changed: number }) => intake.waiting + intake.changed,
  enabled
});

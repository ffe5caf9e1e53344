import { api, data, type Api } from '$lib/api/client';

/** The keys under which hires, their openings and candidates are kept. */
export const hireKeys = {
  all: ['hire'] as const,
  one: (id: string) => ['hire', id] as const,
  start: (id: string, wanted: string | null) => ['hire', id, 'start', wanted] as const,
  trial: (id: string, task: string, asked: unknown) => ['hire', id, 'trial', task, asked] as const,
  past: (id: string, task: string) => ['hire', id, 'past', task] as const,
  arrivals: ['arrivals'] as const,
  of: (occasion: Api['Occasion']) => ['arrivals', occasion] as const,
  offer: (employment: string, occasion: Api['Occasion']) => ['offer', employment, occasion] as const,
  preview: (asked: unknown) => ['preview', 'hire', asked] as const,
  known: (asked: unknown) => ['known', asked] as const,
  intake: ['intake'] as const,
  waiting: ['intake', 'waiting'] as const
};

export const hireQuery = (id: string) => ({
  queryKey: hireKeys.one(id),
  queryFn: () => data(api.GET('/api/hires/{id}', { params: { path: { id } } }))
});

/** How much from recruiting waits for somebody: candidates, and hires of theirs that are said otherwise by now. */
export const waitingQuery = (enabled: boolean) => ({
  queryKey: hireKeys.waiting,
  queryFn: () => data(api.GET('/api/intake/waiting')),
  select: (intake: { waiting: number; changed: number }) => intake.waiting + intake.changed,
  enabled
});

import { api, data } from '$lib/api/client';

/** A run of a pay group: the one with something to check, and the next, where nothing is said. */
export interface ChosenRun {
  group: string | null;
  /** A day of its period. */
  on: string | null;
}

/** The keys under which what runs pay is kept. */
export const payCheckKeys = {
  all: ['pay-check'] as const,
  run: (run: ChosenRun) => ['pay-check', 'run', run] as const,
  working: (group: string, period: string, employment: string) => ['pay-check', 'working', group, period, employment] as const
};

/** Whose pay begins, changes or ends in a run. */
export const runQuery = (run: ChosenRun) => ({
  queryKey: payCheckKeys.run(run),
  queryFn: () => data(api.GET('/api/pay-check', { params: { query: { group: run.group ?? undefined, on: run.on ?? undefined } } }))
});

/** How what a run pays somebody is worked out. */
export const workingQuery = (group: string, period: string, employment: string) => ({
  queryKey: payCheckKeys.working(group, period, employment),
  queryFn: () => data(api.GET('/api/pay-check/{group}/{period}/{employment}', { params: { path: { group, period, employment } } }))
});

import { api, data } from '$lib/api/client';

export type By = 'task' | 'owner' | 'template';

/** The days between which something was done; null leaves it to the server. */
export interface Span {
  from: string | null;
  to: string | null;
}

const asked = (span: Span) => ({ ...(span.from && { from: span.from }), ...(span.to && { to: span.to }) });

/** What is kept of where work stalls. */
export const stallsQuery = (span: Span) => ({
  queryKey: ['stalls', span] as const,
  queryFn: () => data(api.GET('/api/stalls', { params: { query: asked(span) } }))
});

/** The hires behind a row. */
export const behindQuery = (by: By, key: string, span: Span) => ({
  queryKey: ['stalls', 'hires', by, key, span] as const,
  queryFn: () => data(api.GET('/api/stalls/hires', { params: { query: { by, key, ...asked(span) } } }))
});

/** What another time of work would show of the hires under way. */
export const trialQuery = (key: string, work: number) => ({
  queryKey: ['stalls', 'trial', key, work] as const,
  queryFn: () => data(api.GET('/api/stalls/tasks/{key}/trial', { params: { path: { key }, query: { work } } }))
});

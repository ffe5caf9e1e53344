import { api, data, type Api } from '$lib/api/client';

/** The keys under which revisions of pay are kept. */
export const revisionKeys = {
  all: ['pay-revisions'] as const,
  made: ['pay-revisions', 'made'] as const,
  preview: (asked: Api['RevisionAsked'] | undefined) => ['pay-revisions', 'preview', asked] as const
};

/** The revisions that were made, the latest first. */
export const madeQuery = () => ({ queryKey: revisionKeys.made, queryFn: () => data(api.GET('/api/pay-revisions')) });

/** What a rule would make of everybody's pay. */
export const previewQuery = (asked: Api['RevisionAsked'] | undefined) => ({
  queryKey: revisionKeys.preview(asked),
  queryFn: ({ signal }: { signal: AbortSignal }) => data(api.POST('/api/pay-revisions/preview', { body: asked!, signal })),
  enabled: asked !== undefined
});

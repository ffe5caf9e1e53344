import { api, data, type Api } from '$lib/api/client';

/** What forms of an offer come to. */
export const offerQuery = (id: string, version: string, forms: Api['OfferForm'][]) => ({
  queryKey: ['record', id, 'offer', version, forms] as const,
  queryFn: () => data(api.POST('/api/records/{id}/offer', { params: { path: { id } }, body: { forms } }))
});

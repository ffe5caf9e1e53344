import { api, data } from '$lib/api/client';
import { redirect } from '@sveltejs/kit';

/** A hire's own address leads to its record, and all links to one that came to nothing lead to the person's. */
export async function load({ params, url }) {
  const whose = await data(api.GET('/api/hires/{id}/person', { params: { path: { id: params.id } } })).catch(() => undefined);
  if (whose && !whose.hasChecklist) redirect(307, `/people/${whose.employmentId}`);
  if (url.pathname === `/hires/${params.id}`) redirect(307, `/hires/${params.id}/record`);
}

import { api, data } from '$lib/api/client';

/** What a sealed value stands for. The server puts on record that it was shown. */
export async function reveal(employment: string, field: string, value: string | null = null): Promise<string> {
  const shown = await data(
    api.POST('/api/records/{id}/fields/{key}/reveal', { params: { path: { id: employment, key: field } }, body: { value } })
  );
  return String(shown.value);
}

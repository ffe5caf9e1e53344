import { goto } from '$app/navigation';
import { resolve } from '$app/paths';
import { api, data, type Api } from '$lib/api/client';
import { text } from '$lib/text/index.svelte';
import { done, failed } from '$lib/ui/toast';
import { occasionWords } from '$lib/occasions/words';
import type { QueryClient } from '@tanstack/svelte-query';

/** Goes on with a hire that had come to nothing. */
export async function goOn(hire: string, occasion: Api['Occasion'], client: QueryClient) {
  try {
    await data(api.DELETE('/api/hires/{id}/outcome', { params: { path: { id: hire } } }));
    done(occasionWords(occasion).end.undone);
    await client.invalidateQueries();
    await goto(resolve('/hires/[id]/checklist', { id: hire }));
  } catch (e) {
    failed(text.failure(e));
  }
}

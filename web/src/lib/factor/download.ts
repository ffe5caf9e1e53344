import { api, data } from '$lib/api/client';
import { text } from '$lib/text/index.svelte';
import { failed } from '$lib/ui/toast';

/** Takes a file out by a link: whoever has a second factor proves it first, so that no refusal is saved in place of the file. */
export async function download(event: MouseEvent & { currentTarget: HTMLAnchorElement }) {
  event.preventDefault();
  const { href } = event.currentTarget;
  try {
    await data(api.POST('/api/session/second-factor/again'));
    location.assign(href);
  } catch (e) {
    failed(text.failure(e));
  }
}

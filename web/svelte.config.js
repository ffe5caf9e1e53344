import adapter from '@sveltejs/adapter-static';
import { vitePreprocess } from '@sveltejs/vite-plugin-svelte';

/** @type {import('@sveltejs/kit').Config} */
export default {
  preprocess: vitePreprocess(),
  compilerOptions: { runes: true },
  kit: {
    // One page for every address: the server sends it for whatever is not a file or an interface.
    adapter: adapter({ fallback: 'index.html' }),
    // Written into the page, with the hash of the one script that starts the application; the server adds what only a header can say.
    csp: {
      mode: 'hash',
      directives: {
        'default-src': ['self'],
        'script-src': ['self'],
        // Where something floats is set by its place, in a style attribute.
        'style-src': ['self', 'unsafe-inline'],
        'img-src': ['self', 'data:'],
        'object-src': ['none'],
        'base-uri': ['none'],
        'form-action': ['self']
      }
    }
  }
};

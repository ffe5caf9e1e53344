import adapter from '@sveltejs/adapter-static';
import { vitePreprocess } from '@sveltejs/vite-plugin-svelte';

/** @type {import('@sveltejs/kit').Config} */
export default {
  preprocess: vitePreprocess(),
  compilerOptions: { runes: true },
  kit: {
    // One page for every address: the server sends it for whatever is not a file or an interface.
    adapter: adapter({ fallback: 'index.html' })
  }
};

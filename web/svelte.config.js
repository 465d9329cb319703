import adapter from '@sveltejs/adapter-static';
import { vitePreprocess } from '@sveltejs/vite-plugin-svelte';

/** @type {import('@sveltejs/kit').Config} */
export default {
  preprocess: vitePreprocess(),
  kit: {
    // What a page may load is said by the server, in its headers.
    adapter: adapter({ fallback: 'index.html', precompress: true }),
  },
};

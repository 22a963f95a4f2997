import node from '@astrojs/node';
import react from '@astrojs/react';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'astro/config';
import { compileWords } from './scripts/words.mjs';

compileWords();

export default defineConfig({
  output: 'server',
  // Our own server (src/cli) calls the handler, so that it can also listen on a socket and stop cleanly.
  adapter: node({ mode: 'middleware' }),
  integrations: [react()],
  devToolbar: { enabled: false },
  trailingSlash: 'never',
  // Cross-site changes are refused in src/middleware.ts, for every kind of body.
  security: { checkOrigin: false },
  vite: {
    plugins: [tailwindcss()],
    resolve: { alias: { '#demo': new URL('./demo', import.meta.url).pathname } },
    build: {
      chunkSizeWarningLimit: 1200,
      // Scripts of pages are files that browsers keep, however small they are.
      assetsInlineLimit: (file) => (/\.[jt]s$/.test(file) ? false : undefined),
    },
  },
});

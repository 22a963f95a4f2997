import node from '@astrojs/node';
import react from '@astrojs/react';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'astro/config';
import { createHash } from 'node:crypto';
import { createRequire } from 'node:module';
import path from 'node:path';
import { compileWords } from './scripts/words.mjs';

compileWords();

/** The inline scripts that islands start from, as the content policy names them: a test finds a page that has another. */
async function inlineScripts() {
  const runtime = path.join(path.dirname(createRequire(import.meta.url).resolve('astro/package.json')), 'dist/runtime');
  const names = [
    'server/astro-island.prebuilt.js',
    ...['load', 'idle', 'only', 'visible', 'media'].map((name) => `client/${name}.prebuilt.js`),
  ];
  const scripts = await Promise.all(names.map((name) => import(path.join(runtime, name))));
  return scripts.map(({ default: code }) => `'sha256-${createHash('sha256').update(code).digest('base64')}'`).join(' ');
}

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
    define: { 'import.meta.env.INLINE_SCRIPTS': JSON.stringify(await inlineScripts()) },
    plugins: [tailwindcss()],
    resolve: { alias: { '#demo': new URL('./demo', import.meta.url).pathname } },
    build: {
      chunkSizeWarningLimit: 1200,
      // Scripts of pages are files that browsers keep, however small they are.
      assetsInlineLimit: (file) => (/\.[jt]s$/.test(file) ? false : undefined),
    },
  },
});

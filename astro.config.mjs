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

/** A style sheet, too, finds its fonts from where it lies: those are emitted by the server's build, which names them from the root. */
const stylesBesideTheirFonts = {
  name: 'styles-beside-their-fonts',
  enforce: 'post',
  generateBundle(_, bundle) {
    for (const file of Object.values(bundle))
      if (file.type === 'asset' && file.fileName.endsWith('.css')) file.source = String(file.source).replaceAll('url(/_astro/', 'url(./');
  },
};

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
    plugins: [tailwindcss(), stylesBesideTheirFonts],
    resolve: { alias: { '#demo': new URL('./demo', import.meta.url).pathname } },
    // A built file finds others from where it lies itself: the site, or a copy of it, may be below any path.
    experimental: { renderBuiltUrl: (_file, { ssr }) => (ssr ? undefined : { relative: true }) },
    build: {
      chunkSizeWarningLimit: 1200,
      // Scripts of pages are files that browsers keep, however small they are.
      assetsInlineLimit: (file) => (/\.[jt]s$/.test(file) ? false : undefined),
    },
  },
});

import { readdirSync, readFileSync, statSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { GROUND } from './components/ground';

const filesIn = (folder: string): string[] =>
  readdirSync(folder).flatMap((name) => {
    const at = path.join(folder, name);
    return statSync(at).isDirectory() ? filesIn(at) : [at];
  });
const read = (file: string): string => readFileSync(file, 'utf8');
const code = ['src/components', 'src/pages', 'src/islands', 'src/client']
  .flatMap(filesIn)
  .filter((file) => /\.(astro|tsx?)$/.test(file) && !/\.test\.ts$/.test(file));
const SHEETS = ['parts', 'sheets', 'desk-parts'].map((name) => `src/styles/${name}.css`);

describe('the look is said with utilities', () => {
  it('and the set of classes of our own stays small', () => {
    const rules = SHEETS.flatMap((sheet) => read(sheet).split('\n')).filter(
      (line) => /^\s+[.a-z][^{]*\{/.test(line) && !line.includes('@media'),
    );
    expect(rules.length).toBeGreaterThan(100);
    expect(rules.length).toBeLessThanOrEqual(240);
  });

  it('and what a browser draws around a page has the ground of its theme', () => {
    expect(read('src/styles/tokens.css')).toContain(`--ground: light-dark(${GROUND.light}, ${GROUND.dark});`);
  });

  it('and no class of our own is left that nothing uses', () => {
    const all = code.map(read).join('\n');
    const names = new Set(SHEETS.flatMap((sheet) => [...read(sheet).matchAll(/\.([a-z][\w-]*)/g)].map((match) => match[1] ?? '')));
    const libraries = /^(react-aria|maplibregl|tiptap)/;
    // Stages stand in the class as they are called.
    const made = new Set(['published', 'binned', 'withdrawn', 'in-review', 'draft', 'em']);
    const unused = [...names].filter(
      (name) => !libraries.test(name) && !made.has(name) && !new RegExp(`(?<![\\w-])${name}(?![\\w-])`).test(all),
    );
    expect(unused).toEqual([]);
  });

  it('and no style stands in the markup but positions and inks that are computed', () => {
    const fixed = code.flatMap((file) => [...read(file).matchAll(/\bstyle="([^"{$]*)"/g)].map((match) => `${file}: ${match[1]}`));
    expect(fixed).toEqual(['src/components/views/map/MapView.astro: fill:light-dark(var(--ml),var(--md))']);
  });

  it('and readers’ pages name their parts for whoever hangs styles of their own on them', () => {
    const parts = new Set(code.flatMap((file) => [...read(file).matchAll(/data-part="([a-z-]+)"/g)].map((match) => match[1])));
    for (const part of [
      'masthead',
      'foot',
      'heading',
      'views',
      'filters',
      'month-sheet',
      'ledger',
      'day',
      'chart',
      'places',
      'event',
      'sentence',
      'facts',
      'gallery',
      'next-date',
      'neighbours',
    ])
      expect(parts, part).toContain(part);
  });
});

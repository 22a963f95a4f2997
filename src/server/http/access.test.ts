import { readdirSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { ACCESS, mayUse, whoMay } from './access';

/** All routes of src/pages, in Astro's notation. */
function routesOfFiles(root = 'src/pages'): string[] {
  const files = readdirSync(root, { recursive: true, withFileTypes: true }).filter((f) => f.isFile());
  return files.map((f) => {
    const file = path.relative(root, path.join(f.parentPath, f.name));
    const route = `/${file.replace(/\.(astro|ts)$/, '')}`.replace(/\/index$/, '');
    return route || '/';
  });
}

describe('access', () => {
  const routes = routesOfFiles();
  it('finds the pages at all', () => expect(routes.length).toBeGreaterThan(40));
  it('is declared for every page and endpoint', () => expect(routes.filter((route) => whoMay(route) === undefined)).toEqual([]));
  it('declares nothing that is not there', () => {
    expect(Object.keys(ACCESS).filter((route) => !routes.includes(route))).toEqual([]);
  });
  it('opens nothing of the Desk but signing in to readers', () => {
    const open = Object.entries(ACCESS).filter(
      ([route, who]) => who === 'anyone' && (route.startsWith('/desk') || route.startsWith('/api')),
    );
    expect(open.map(([route]) => route).sort()).toEqual([
      '/api/auth/[...all]',
      '/desk/forgotten',
      '/desk/invitation/[token]',
      '/desk/new-password',
      '/desk/sign-in',
    ]);
  });
  it('refuses names of the language itself', () => {
    for (const name of ['__proto__', 'constructor', 'toString']) expect(whoMay(name)).toBeUndefined();
  });
  it('lets each role use what is its own', () => {
    const actor = (role: 'editor' | 'contributor') => ({ id: 'x', name: 'x', role });
    expect(mayUse(['coordinator'], actor('editor'), false)).toBe(false);
    expect(mayUse(['coordinator', 'editor'], actor('editor'), false)).toBe(true);
    expect(mayUse('operator', actor('editor'), false)).toBe(false);
    expect(mayUse('operator', null, true)).toBe(true);
    expect(mayUse(['coordinator'], null, true)).toBe(false);
  });
});

import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { ACCESS, METHODS, mayUse, methodsOf, whoMay } from './access';
import { isOpenData } from './open-data';

/** All routes of src/pages, in Astro's notation, with their files. */
function filesOfRoutes(root = 'src/pages'): [string, string][] {
  const files = readdirSync(root, { recursive: true, withFileTypes: true }).filter((f) => f.isFile());
  return files.map((f) => {
    const file = path.relative(root, path.join(f.parentPath, f.name));
    const route = `/${file.replace(/\.(astro|ts)$/, '')}`.replace(/\/index$/, '');
    return [route || '/', path.join(root, file)];
  });
}

describe('access', () => {
  const routes = filesOfRoutes().map(([route]) => route);
  it('finds the pages at all', () => expect(routes.length).toBeGreaterThan(40));
  it('is declared for every page and endpoint', () => expect(routes.filter((route) => whoMay(route) === undefined)).toEqual([]));
  it('declares nothing that is not there', () => {
    expect(Object.keys(ACCESS).filter((route) => !routes.includes(route))).toEqual([]);
  });
  it('opens the interface for other programs for reading alone', () => {
    const open = Object.keys(ACCESS).filter(isOpenData);
    expect(open.length).toBe(4);
    for (const route of open) expect([whoMay(route), [...methodsOf(route)].sort()]).toEqual(['anyone', ['GET', 'HEAD', 'OPTIONS']]);
  });
  it('opens nothing of the Desk but signing in to readers', () => {
    const open = Object.entries(ACCESS).filter(
      ([route, who]) => who === 'anyone' && (route.startsWith('/desk') || (route.startsWith('/api') && !isOpenData(route))),
    );
    expect(open.map(([route]) => route).sort()).toEqual([
      '/api/auth/[...all]',
      '/desk/forgotten',
      '/desk/invitation/[token]',
      '/desk/new-password',
      '/desk/sign-in',
    ]);
  });
  it('says of every page and endpoint which methods it answers', () => {
    for (const [route, file] of filesOfRoutes()) {
      const code = readFileSync(file, 'utf8');
      const exported = [...code.matchAll(/^export const (GET|HEAD|POST|PUT|DELETE|PATCH|OPTIONS|ALL)\b/gm)].map((m) => m[1] as string);
      const page = /\bhandle(Long)?Form\(|request\.method === 'POST'/.test(code) ? ['GET', 'POST'] : ['GET'];
      const answers = exported.includes('ALL') ? ['GET', 'POST'] : file.endsWith('.ts') ? exported : page;
      const expected = [...new Set([...answers, ...(answers.includes('GET') ? ['HEAD'] : [])])].sort();
      expect([...methodsOf(route)].sort(), route).toEqual(expected);
    }
    expect(Object.keys(METHODS).filter((route) => whoMay(route) === undefined)).toEqual([]);
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

import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs';
import path from 'node:path';
import ts from 'typescript';
import { describe, expect, it } from 'vitest';

const ROOT = path.resolve('src');
const isOurs = (name: string): boolean => /\.tsx?$/.test(name) && !/\.(test|d)\.tsx?$/.test(name);

function filesIn(folder: string): string[] {
  return readdirSync(folder).flatMap((name) => {
    const at = path.join(folder, name);
    return statSync(at).isDirectory() ? filesIn(at) : isOurs(name) ? [at] : [];
  });
}

/** The file of ours that a specifier means. */
function targetOf(from: string, specifier: string): string | undefined {
  const base = specifier.startsWith('@/') ? path.join(ROOT, specifier.slice(2)) : path.join(path.dirname(from), specifier);
  if (!specifier.startsWith('@/') && !specifier.startsWith('.')) return undefined;
  return [`${base}.ts`, `${base}.tsx`, path.join(base, 'index.ts')].find(existsSync);
}

/** What each file imports of ours, types too. */
function importsOf(files: readonly string[]): Map<string, string[]> {
  return new Map(
    files.map((file) => {
      const { importedFiles } = ts.preProcessFile(readFileSync(file, 'utf8'), true, true);
      return [file, importedFiles.flatMap(({ fileName }) => targetOf(file, fileName) ?? [])] as const;
    }),
  );
}

/** The first way that leads back to where it began; undefined when there is none. */
function circleIn(graph: ReadonlyMap<string, readonly string[]>): string[] | undefined {
  const done = new Set<string>();
  const way: string[] = [];
  const walk = (file: string): string[] | undefined => {
    const at = way.indexOf(file);
    if (at >= 0) return [...way.slice(at), file];
    if (done.has(file)) return undefined;
    way.push(file);
    for (const next of graph.get(file) ?? []) {
      const found = walk(next);
      if (found) return found;
    }
    way.pop();
    done.add(file);
    return undefined;
  };
  for (const file of graph.keys()) {
    const found = walk(file);
    if (found) return found;
  }
  return undefined;
}

describe('imports', () => {
  it('lead in no circle, types included', () => {
    const graph = importsOf(filesIn(ROOT));
    expect(graph.size).toBeGreaterThan(400);
    expect([...graph.values()].flat().length).toBeGreaterThan(1500);
    expect(circleIn(graph)?.map((file) => path.relative(ROOT, file))).toBeUndefined();
  });

  it('in a circle are found', () => {
    const graph = new Map([
      ['a', ['b', 'd']],
      ['b', ['c']],
      ['c', ['d', 'b']],
      ['d', []],
    ]);
    expect(circleIn(graph)).toEqual(['b', 'c', 'b']);
  });
});

/** Each export of the core and the server says what it is, in a comment right above it. */
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';

const EXPORT = /^export (?:default )?(?:abstract )?(?:async function|function\*?|const|interface|type|class|let) (\w+)/;

/** The names of exports without a comment; the second form of an overloaded function has its first's. */
function bareExports(text: string): string[] {
  const lines = text.split('\n');
  return lines.flatMap((line, i) => {
    const name = EXPORT.exec(line)?.[1];
    const above = lines[i - 1]?.trim() ?? '';
    if (!name || above.endsWith('*/') || above.startsWith('//') || EXPORT.exec(above)?.[1] === name) return [];
    return [name];
  });
}

const files = ['src/core', 'src/server'].flatMap((folder) =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((name) => name.endsWith('.ts') && !name.endsWith('.test.ts'))
    .map((name) => path.join(folder, name)),
);

describe('exports of the core and the server', () => {
  it('say what they are', () => {
    expect(files.length).toBeGreaterThan(250);
    expect(files.flatMap((file) => bareExports(readFileSync(file, 'utf8')).map((name) => `${file}: ${name}`))).toEqual([]);
  });
  it('are found where they say nothing', () => {
    expect(bareExports('/** A day. */\nexport type Day = number;\n\nexport const NOON = 720;\nexport function noon() {}')).toEqual([
      'NOON',
      'noon',
    ]);
  });
});

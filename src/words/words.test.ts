/** The catalogue of words: whole in every language, used to the last message, and the only place that readers' pages take words from. */
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { parse } from '@astrojs/compiler';
import { describe, expect, it } from 'vitest';
import { literalWords, SAID_ATTRIBUTES } from '../../tests/support/literal-words';
import { compileWords } from '../../scripts/words.mjs';
import { LANGUAGES } from '@/core/phrase/language';
import { READERS_WORDS } from './readers';
import { SENDING_WORDS } from './sending';

type Tree = { [key: string]: string | Tree };

const read = (language: string, file: string): Tree => JSON.parse(readFileSync(path.join('src/words', language, file), 'utf8')) as Tree;
function* messages(tree: Tree, keys: string[] = []): Generator<[string[], string]> {
  for (const [key, value] of Object.entries(tree))
    if (typeof value === 'string') yield [[...keys, key], value];
    else yield* messages(value, [...keys, key]);
}
const FILES = readdirSync('src/words/en');
/** Those that readers meet, and so come in every language; the Desk is in English. */
const TRANSLATED = FILES.filter((file) => !file.startsWith('desk-'));

function sources(folder: string, ending: RegExp): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const at = path.join(folder, entry.name);
    if (entry.isDirectory()) return entry.name === 'compiled' ? [] : sources(at, ending);
    return ending.test(entry.name) && !/\.test\.ts$/.test(entry.name) ? [at] : [];
  });
}

describe('the catalogue of words', () => {
  it('agrees with itself in all languages', () => expect(() => compileWords()).not.toThrow());

  it.each(FILES)('%s has no message that nothing says', (file) => {
    const code = ['src/components', 'src/pages', 'src/server', 'src/islands', 'src/client', 'src/words', 'src/core']
      .flatMap((folder) => sources(folder, /\.(astro|ts|tsx)$/))
      .concat('src/middleware.ts')
      .map((at) => readFileSync(at, 'utf8'))
      .join('\n');
    const unused = [...messages(read('en', file))]
      .map(([keys]) => keys)
      .filter((keys) => {
        const key = keys.at(-1) as string;
        // Said by name, or looked up by an id that the code names.
        return !new RegExp(`(\\.${key}\\b|'${key}'|\\b${key}:)`).test(code) && !['features', 'steps', 'parts'].includes(keys[0] as string);
      });
    expect(unused.map((keys) => keys.join('.'))).toEqual([]);
  });

  it.each(TRANSLATED)('%s is translated: what is the same in French was meant to be', (file) => {
    const french = new Map([...messages(read('fr', file))].map(([keys, text]) => [keys.join('.'), text]));
    const same = [...messages(read('en', file))].filter(([keys, text]) => french.get(keys.join('.')) === text).map(([, text]) => text);
    const MEANT = [
      'Site',
      '{n, plural, one {# date} other {# dates}}',
      '{what} · {n, plural, one {# date} other {# dates}}',
      '{day}, {n, plural, one {# date} other {# dates}}',
      'Page {n}',
      '{km} km',
      // What was written before there were codes.
      '{text}',
      '{day} {year}',
      'Pages',
      '{name}, page {n}',
    ];
    expect(same.filter((text) => !MEANT.includes(text))).toEqual([]);
  });

  it('counts as each language does', () => {
    const { en, fr } = READERS_WORDS;
    expect([0, 1, 2, 1240].map((n) => en.count.events({ n }))).toEqual(['0 events', '1 event', '2 events', '1,240 events']);
    // In French nought is one of those that have no plural.
    expect([0, 1, 2].map((n) => fr.count.events({ n }))).toEqual(['0 événement', '1 événement', '2 événements']);
    expect(fr.count.events({ n: 1240 })).toMatch(/^1\s240 événements$/);
    expect(SENDING_WORDS.fr.wrong.tooOften({ n: 1 })).toContain('dans 1 minute.');
  });

  it('says everything in every language without a hole', () => {
    const say = (tree: object, found: string[] = []): string[] => {
      for (const value of Object.values(tree) as (object | ((d: object) => string))[])
        if (typeof value === 'function') found.push(value(new Proxy({}, { get: () => 2 })));
        else say(value, found);
      return found;
    };
    for (const language of LANGUAGES)
      for (const tree of [READERS_WORDS[language], SENDING_WORDS[language]])
        for (const text of say(tree)) expect(String(text)).toMatch(/\S/);
  });
});

/** Every template; `empty.astro` shows what is not there at all. */
const TEMPLATES = [
  ...sources('src/pages', /\.astro$/).filter((at) => at !== 'src/pages/empty.astro'),
  ...sources('src/components', /\.astro$/),
];

/** Code whose words nobody reads on a page: what an operator's console says, columns of files, names, lines that are read again. */
const OTHER_WORDS = [
  'src/server/archive/',
  // A document for programmers, in English as its field names are.
  'src/server/open-data/',
  'src/server/backup/restore.ts',
  'src/server/backup/write.ts',
  'src/server/db/schema/',
  'src/server/site/configuration.ts',
  'src/server/http/metrics.ts',
  'src/server/exchange/operator.ts',
  'src/server/exchange/export.ts',
  'src/server/site/settings.ts',
  'src/server/site/write.ts',
  'src/pages/api/operator/',
];
/** Two words that are a name in the code: codes that are stored, classes, keys of what is kept, statements for the database. */
const NAMES = [
  ...['sent again', 'opened again', 'changes taken in part', 'changes left', 'changes taken'],
  ...['amber small', 'nowrap quiet', 'stage {}', 'bar {}', 'nofollow noopener'],
  ...['next days', 'cuts under way', 'like {}', 'alike {} {}', '{} as "{}"', 'listen {}', 'notify {}'],
  ...['the database refused', 'a query failed', 'a value that is no error was thrown'],
];
const CODE = ['src/islands', 'src/client', 'src/components', 'src/pages', 'src/server']
  .flatMap((folder) => sources(folder, /\.tsx?$/))
  .filter((at) => !/\.test\.tsx$/.test(at) && !OTHER_WORDS.some((other) => at.startsWith(other)));

interface Node {
  type: string;
  name?: string;
  kind?: string;
  value?: string;
  attributes?: Node[];
  children?: Node[];
}

/** Words that stand in a template itself: in its text, or in an attribute that is read out. */
function literals(node: Node, inCode = false): string[] {
  const own = node.type === 'text' && !inCode && /\p{L}{2}/u.test(node.value ?? '') ? [(node.value ?? '').trim()] : [];
  const said = (node.attributes ?? [])
    .filter(({ name = '', kind, value = '' }) => kind === 'quoted' && SAID_ATTRIBUTES.includes(name) && /\p{L}{2}/u.test(value))
    .map(({ name, value }) => `${name}="${value}"`);
  if (node.name === 'style' || node.name === 'script') return [];
  return [...own, ...said, ...(node.children ?? []).flatMap((child) => literals(child, node.type === 'expression'))];
}

describe('pages, islands and what the server says', () => {
  it('are many', () => expect([TEMPLATES.length > 50, CODE.length > 250]).toEqual([true, true]));

  it.each(TEMPLATES)('%s takes all of its words from the catalogue', async (at) => {
    const { ast } = await parse(readFileSync(at, 'utf8'), { position: false });
    expect(literals(ast as unknown as Node)).toEqual([]);
    const [, code = ''] = /^---\n(.*?)\n---/s.exec(readFileSync(at, 'utf8')) ?? [];
    expect(literalWords(code, 'front.ts')).toEqual([]);
  });

  it('take all of their words from the catalogue', () => {
    const found = CODE.flatMap((at) =>
      literalWords(readFileSync(at, 'utf8'), at)
        .filter((words) => !NAMES.includes(words))
        .map((words) => `${at}: ${words}`),
    );
    expect(found).toEqual([]);
  });

  it.each([
    ["const said = 'Nothing is lost.';", ['Nothing is lost.']],
    [`const said = \`\${n} of it. Look again, please\`;`, ['{} of it. Look again, please']],
    [`const said = \`Saved \${n} dates\`;`, ['Saved {} dates']],
    ['const a = <p title="Saved">Now <b>here</b></p>;', ['title="Saved"', 'Now', 'here']],
    ["if (kind === 'Nothing is lost.') throw new Error('This cannot be, ever');", []],
    ['const a = <p className="Big letters here" data-part="Title, here" />;', ['data-part="Title, here"']],
  ])('words are found where they stand: %s', (code, found) => {
    expect(literalWords(code, 'a.tsx')).toEqual(found);
  });
});

// Compiles the catalogue of words: each file of ICU messages under src/words/<language>/ becomes a module of functions under
// src/words/compiled/, so that what runs holds no parser, and a page or an island only the words it imports.
//   npm run words          (also before every build, start for developers, and test)
// Ends with an error where a language lacks a message that English has, has one too many, or takes other parameters.
import { mkdirSync, readdirSync, readFileSync, existsSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';
import { parse } from '@messageformat/parser';

const require = createRequire(import.meta.url);
const MessageFormat = require('@messageformat/core');
const compileModule = require('@messageformat/core/compile-module');

const folder = path.resolve(import.meta.dirname, '../src/words');
const out = path.join(folder, 'compiled');
/** English first: the others are held against it. */
const LANGUAGES = ['en', 'fr'];
/** What people who are signed in read, one file an island or a group of pages: in English alone. */
const ENGLISH_ALONE = /^desk-/;

/** Each message by its path of keys. */
function* messagesOf(tree, keys = []) {
  for (const [key, value] of Object.entries(tree)) {
    if (typeof value === 'string') yield [[...keys, key].join('.'), value];
    else yield* messagesOf(value, [...keys, key]);
  }
}

/** The parameters of a message with their types: what is counted is a number, what is chosen by is text, anything else either. */
function parametersOf(message) {
  const types = new Map();
  const visit = (tokens) => {
    for (const token of tokens) {
      if (token.type === 'argument' && !types.has(token.arg)) types.set(token.arg, 'string | number');
      if (token.type === 'plural' || token.type === 'selectordinal') types.set(token.arg, 'number');
      if (token.type === 'select') types.set(token.arg, 'string');
      if (token.cases) for (const one of token.cases) visit(one.tokens);
    }
  };
  visit(parse(message));
  return types;
}

const typeOf = (message) => {
  const parameters = [...parametersOf(message)].sort(([a], [b]) => (a < b ? -1 : 1));
  return parameters.length ? `(d: { ${parameters.map(([name, type]) => `${name}: ${type}`).join('; ')} }) => string` : '() => string';
};

function declaration(tree, depth = 1) {
  const pad = '  '.repeat(depth);
  const lines = Object.entries(tree).map(
    ([key, value]) => `${pad}${JSON.stringify(key)}: ${typeof value === 'string' ? typeOf(value) : declaration(value, depth + 1)};`,
  );
  return `{\n${lines.join('\n')}\n${'  '.repeat(depth - 1)}}`;
}

const read = (language, file) => JSON.parse(readFileSync(path.join(folder, language, file), 'utf8'));

function write(name, text) {
  const file = path.join(out, name);
  if (!existsSync(file) || readFileSync(file, 'utf8') !== text) writeFileSync(file, text);
}

/** What is wrong between English and another language, one sentence each. */
function differences(file, language, english, other) {
  const [mine, theirs] = [new Map(messagesOf(english)), new Map(messagesOf(other))];
  const wrong = [];
  for (const [key, message] of mine) {
    if (!theirs.has(key)) wrong.push(`${language}/${file} lacks ${key}: “${message}”`);
    else if (typeOf(message) !== typeOf(theirs.get(key)))
      for (const name of new Set([...parametersOf(message).keys(), ...parametersOf(theirs.get(key)).keys()]))
        if (parametersOf(message).has(name) !== parametersOf(theirs.get(key)).has(name))
          wrong.push(`${language}/${file}, ${key}: {${name}} stands in one language only`);
  }
  for (const key of theirs.keys()) if (!mine.has(key)) wrong.push(`${language}/${file} has ${key}, which English does not`);
  return wrong;
}

export function compileWords() {
  mkdirSync(out, { recursive: true });
  const wrong = [];
  for (const file of readdirSync(path.join(folder, 'en'))) {
    const name = path.basename(file, '.json');
    const english = read('en', file);
    for (const language of ENGLISH_ALONE.test(name) ? ['en'] : LANGUAGES) {
      const messages = read(language, file);
      wrong.push(...differences(file, language, english, messages));
      const code = compileModule(new MessageFormat(language === 'fr' ? 'fr-CA' : language), messages);
      write(`${name}.${language}.js`, `// Made by scripts/words.mjs from src/words/${language}/${file}.\n${code}`);
      write(`${name}.${language}.d.ts`, `declare const words: ${declaration(english)};\nexport default words;\n`);
    }
  }
  if (wrong.length) throw new Error(`The catalogue of words does not agree with itself:\n  ${wrong.join('\n  ')}`);
}

if (process.argv[1] === import.meta.filename) compileWords();

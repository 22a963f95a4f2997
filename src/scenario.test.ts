import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { GAZETTEER } from '../demo/gazetteer';
import { HOLIDAYS, SIGN_INS } from '../demo/people';
import { ORGANIZERS, VENUES } from '../demo/places';
import { DEMO_SETTINGS } from '../demo/seed';

/** What occurs in the demo alone: names of its places, people and the site. */
const names = [
  'Kittiwick',
  DEMO_SETTINGS.name,
  ...GAZETTEER.entries.map(({ name }) => name),
  ...HOLIDAYS.map(({ name }) => name),
  ...VENUES.map(({ name }) => name),
  ...ORGANIZERS.map(({ name }) => name),
  ...SIGN_INS.flatMap(({ name, email }) => [name, ...name.split(' ').slice(1), email]),
];
/** Words that anybody may say. */
const COMMON = new Set([
  'New Year',
  'Good Friday',
  'Easter Sunday',
  'Boxing Day',
  'Christmas Day',
  'Harbour Choir',
  'School',
  'Library',
  'The Sound',
  'Town Hall',
]);
const pattern = new RegExp(
  `\\b(${[...new Set(names)]
    .filter((name) => !COMMON.has(name) && name.length > 4)
    .map((name) => name.replace(/[.*+?^${}()|[\]\\]/g, '\\$&').replaceAll("'", "[’']"))
    .join('|')})\\b`,
);

describe('the demo’s isles', () => {
  it('occur in nothing that a real site meets', () => {
    const files = ['src', 'public', 'migrations', 'deploy', 'bin', 'scripts']
      .flatMap((folder) => readdirSync(folder, { recursive: true, withFileTypes: true }))
      .filter(
        (entry) =>
          entry.isFile() && !/\.test\.tsx?$|\.(png|woff2|ico)$|^screens\.mjs$/.test(entry.name) && !entry.parentPath.includes('compiled'),
      )
      .map(({ parentPath, name }) => `${parentPath}/${name}`);
    expect(files.length).toBeGreaterThan(600);
    const found = files.flatMap((file) =>
      readFileSync(file, 'utf8')
        .split('\n')
        .flatMap((line, i) => (pattern.test(line) ? [`${file}:${i + 1}: ${pattern.exec(line)?.[0]}`] : [])),
    );
    expect(found).toEqual([]);
  });
});

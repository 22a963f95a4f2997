// What ships with the site and under which licences: the packages of production, from their own words. Writes docs/licences.md.
//   node scripts/licences.mjs [--check]     --check writes nothing, and fails when the list is not what is installed
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';

const FILE = 'docs/licences.md';
/** Licences under which a site may be passed on with its code; others are looked at by a person before they come in. */
const KNOWN = [
  'MIT',
  'ISC',
  'BSD-2-Clause',
  'BSD-3-Clause',
  '0BSD',
  'Apache-2.0',
  'BlueOak-1.0.0',
  'CC0-1.0',
  'OFL-1.1',
  'Unlicense',
  'Python-2.0',
  'MPL-2.0',
  'LGPL-3.0-or-later',
  'CC-BY-3.0',
  'CC-BY-4.0',
  'PSF-2.0',
  'MIT-0',
  'PostgreSQL',
  'Unicode-DFS-2016',
];
/** What packages that name none in their description have in their licence file or their readme, as a person read it. */
const READ = { suncalc: 'BSD-2-Clause', 'zod-to-ts': 'MIT', 'combine-errors': 'MIT' };

const lock = JSON.parse(readFileSync('package-lock.json', 'utf8'));

/** @returns {{ name: string, licence: string }[]} */
function shipped() {
  const found = new Map();
  for (const [at, entry] of Object.entries(lock.packages)) {
    if (!at || entry.dev || entry.link) continue;
    const name = at.slice(at.lastIndexOf('node_modules/') + 'node_modules/'.length);
    const file = path.join(at, 'package.json');
    // Builds for other machines are not here; the lock says what they are. What else is not here does not ship.
    if (!existsSync(file) && !entry.os && !entry.cpu) continue;
    const own = existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : entry;
    const licence = own.license ?? entry.license ?? own.licenses ?? READ[name];
    found.set(
      name,
      typeof licence === 'string'
        ? licence
        : Array.isArray(licence)
          ? licence.map((one) => one.type ?? one).join(' OR ')
          : (licence?.type ?? ''),
    );
  }
  return [...found].map(([name, licence]) => ({ name, licence })).sort((a, b) => (a.name < b.name ? -1 : 1));
}

const all = shipped();
const strange = all.filter(
  ({ licence }) =>
    !licence
      .replace(/[()]/g, '')
      .split(/ (?:OR|AND) /)
      .every((one) => KNOWN.includes(one)),
);
const byLicence = all.reduce((map, one) => map.set(one.licence, [...(map.get(one.licence) ?? []), one]), new Map());
const text = `# Licences of what ships

The packages that a running site uses, by licence, as they say themselves; made by \`npm run licences\`.

${[...byLicence]
  .sort((a, b) => b[1].length - a[1].length || (a[0] < b[0] ? -1 : 1))
  .map(([licence, list]) => `**${licence || 'none given'}** (${list.length}): ${list.map(({ name }) => name).join(', ')}`)
  .join('\n\n')}

**Data about the world**, made into \`world/\` when packages are installed: towns from GeoNames (CC BY 4.0; credited on the page for setting up and under maps that show them), coasts
and borders from Natural Earth (public domain), currencies from Unicode CLDR (Unicode licence).

**Holidays of countries** come from date-holidays (CC BY 3.0; credited on the Desk's page for days of the year).
`;
if (strange.length) {
  console.error(`To be looked at by a person: ${strange.map(({ name, licence }) => `${name} (${licence || 'none given'})`).join(', ')}`);
  process.exitCode = 1;
}
if (!process.argv.includes('--check')) writeFileSync(FILE, text);
else if (!existsSync(FILE) || readFileSync(FILE, 'utf8') !== text) {
  console.error(`${FILE} is not what is installed: npm run licences`);
  process.exitCode = 1;
}
if (!process.exitCode) console.log(`${all.length} packages under ${byLicence.size} licences.`);

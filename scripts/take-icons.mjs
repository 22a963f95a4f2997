// Takes the drawings that categories may have from lucide-react into the core, as plain SVG parts: node scripts/take-icons.mjs
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { pathToFileURL } from 'node:url';

const NAMES = [
  ['anchor', 'Anchor'],
  ['sailboat', 'Boat'],
  ['ship', 'Ship'],
  ['fish', 'Fish'],
  ['waves', 'Water'],
  ['lighthouse', 'Lighthouse'],
  ['compass', 'Compass'],
  ['map', 'Map'],
  ['footprints', 'Walk'],
  ['bike', 'Bicycle'],
  ['mountain', 'Hill'],
  ['trees', 'Trees'],
  ['sprout', 'Seedling'],
  ['flower-2', 'Flower'],
  ['bird', 'Bird'],
  ['moon-star', 'Night sky'],
  ['sun', 'Sun'],
  ['snowflake', 'Snow'],
  ['music', 'Music'],
  ['mic-vocal', 'Song'],
  ['drama', 'Theatre'],
  ['clapperboard', 'Film'],
  ['palette', 'Painting'],
  ['camera', 'Photograph'],
  ['scissors', 'Craft'],
  ['wrench', 'Repair'],
  ['book-open', 'Book'],
  ['graduation-cap', 'Course'],
  ['presentation', 'Talk'],
  ['users', 'Meeting'],
  ['baby', 'Small children'],
  ['gamepad-2', 'Play'],
  ['trophy', 'Contest'],
  ['dumbbell', 'Exercise'],
  ['heart-pulse', 'Health'],
  ['utensils', 'Food'],
  ['coffee', 'Café'],
  ['store', 'Market'],
  ['church', 'Church'],
  ['landmark', 'Heritage'],
  ['party-popper', 'Feast'],
  ['recycle', 'Recycling'],
];

const folder = path.resolve('node_modules/lucide-react/dist/esm/icons');
/** Some names stand for others. */
function fileOf(name) {
  const file = path.join(folder, `${name}.mjs`);
  const other = /from '\.\/([\w-]+)\.mjs'/.exec(
    readFileSync(file, 'utf8')
      .split('\n')
      .find((line) => line.startsWith('export') && line.includes('from')) ?? '',
  );
  return other ? fileOf(other[1]) : file;
}
const entries = [];
for (const [name, words] of NAMES) {
  const { __iconData } = await import(pathToFileURL(fileOf(name)).href);
  const parts = __iconData.node.map(([tag, { key: _key, ...attributes }]) => {
    const said = Object.entries(attributes).map(([k, v]) => ` ${k}="${v}"`);
    return `<${tag}${said.join('')}/>`;
  });
  entries.push(`  '${name}': ['${words}', '${parts.join('')}'],`);
}
writeFileSync(
  'src/core/colour/icons.ts',
  `/** Drawings that a category may have beside its name, 24 x 24, lines. Made by scripts/take-icons.mjs from Lucide (ISC licence). */
export const ICONS: Record<string, readonly [name: string, svg: string]> = {
${entries.join('\n')}
};
`,
);

/** `almanac map`: streets from an archive and a drawing of the site's own, taken in from files, said and taken away. */
import { resolved, withSite } from './exchange';
import { CliError, EXIT } from './problem';

interface Streets {
  name: string;
  size: string;
  from: string;
  to: string;
  minZoom: number;
  maxZoom: number;
  attribution: string;
}

interface Drawing {
  name: string;
  counts: Record<string, number>;
  plain: number;
  leftOut: number;
  wrong: { n: number; reason: string }[];
  alone: boolean;
}

const said = ({ name, size, from, to, minZoom, maxZoom, attribution }: Streets): string =>
  [`${name}, ${size}, from ${from} to ${to}, zooms ${minZoom} to ${maxZoom}`, attribution && `Its data: ${attribution}`]
    .filter(Boolean)
    .join('\n');

const features = (n: number): string => `${n.toLocaleString('en')} ${n === 1 ? 'feature' : 'features'}`;

/** Takes a file in (`add FILE`), takes something away (`remove [NAME]`), or says what there is. */
export async function mapCommand(action: string | undefined, file: string | undefined, credit: string | undefined): Promise<void> {
  if (credit !== undefined && action !== 'add') throw new CliError('--credit is for almanac map add FILE.geojson', EXIT.refused);
  if (action === 'add' && file) return add(resolved(file), credit);
  if (action === 'remove') return remove(file);
  if (action) throw new CliError('almanac map, almanac map add FILE, or almanac map remove [NAME]', EXIT.refused);
  const { streets, own } = (await withSite((ask) => ask('map', {}))) as {
    streets: Streets | null;
    own: { name: string; features: number } | null;
  };
  console.log(streets ? said(streets) : 'The map has no streets yet: almanac map add FILE.pmtiles');
  if (own) console.log(`A drawing of your own: ${own.name}, ${features(own.features)}`);
}

async function add(path: string, credit: string | undefined): Promise<void> {
  const added = (await withSite((ask) => ask('map-add', { path, credit }))) as { streets?: Streets; own?: Drawing };
  if (added.streets) console.log(`The map has streets now: ${said(added.streets)}`);
  if (!added.own) return;
  const { name, counts, plain, leftOut, wrong, alone } = added.own;
  for (const { n, reason } of wrong) console.log(`left out feature ${n.toLocaleString('en')}: ${reason}.`);
  if (leftOut > wrong.length) console.log(`… and ${(leftOut - wrong.length).toLocaleString('en')} more left out.`);
  if (plain) console.log(`${features(plain)} without a kind that is known: drawn as plain areas and paths.`);
  const kinds = Object.entries(counts)
    .map(([kind, n]) => `${n.toLocaleString('en')} ${kind}`)
    .join(', ');
  console.log(`The map shows ${name} now, ${alone ? 'in place of' : 'over'} the coasts: ${kinds}.`);
  if (leftOut) process.exitCode = EXIT.partly;
}

async function remove(name: string | undefined): Promise<void> {
  const gone = (await withSite((ask) => ask('map-remove', { name }))) as { streets?: Streets; own?: string } | null;
  if (gone?.streets) console.log(`The streets of ${gone.streets.name} are gone from the map; the coasts stay.`);
  else if (gone) console.log(`The drawing ${gone.own} is gone from the map; the coasts stay.`);
  else console.log('The map had no streets, and no drawing of your own.');
}

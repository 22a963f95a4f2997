/** `almanac map`: the site's street map, taken in from a file, said and taken away. */
import { resolved, withSite } from './exchange';
import { CliError, EXIT } from './problem';

interface Kept {
  name: string;
  size: string;
  from: string;
  to: string;
  minZoom: number;
  maxZoom: number;
  attribution: string;
}

const said = ({ name, size, from, to, minZoom, maxZoom, attribution }: Kept): string =>
  [`${name}, ${size}, from ${from} to ${to}, zooms ${minZoom} to ${maxZoom}`, attribution && `Its data: ${attribution}`]
    .filter(Boolean)
    .join('\n');

/** Takes a file in (`add FILE`), takes the map away (`remove`), or says what there is. */
export async function mapCommand(action: string | undefined, file: string | undefined): Promise<void> {
  if (action === 'add' && file) {
    const kept = (await withSite((ask) => ask('map-add', { path: resolved(file) }))) as Kept;
    console.log(`The map has streets now: ${said(kept)}`);
  } else if (action === 'remove' && !file) {
    const kept = (await withSite((ask) => ask('map-remove', {}))) as Kept | null;
    console.log(kept ? `The streets of ${kept.name} are gone from the map; the coasts stay.` : 'The map had no streets.');
  } else if (!action) {
    const kept = (await withSite((ask) => ask('map', {}))) as Kept | null;
    console.log(kept ? said(kept) : 'The map has no streets yet: almanac map add FILE.pmtiles');
  } else throw new CliError('almanac map, almanac map add FILE, or almanac map remove', EXIT.refused);
}

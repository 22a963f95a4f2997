/** A street map in words: what it is, and who made its data. */
import { type Chart, hasLakes } from '@/core/geo/geo';
import { plainText, shorten } from '@/core/text/text';
import { inWords } from './archive-file';
import type { KeptStreets } from './kept-streets';
import type { ReadersWords } from '@/words/readers';

/** An attribution has at most so many characters on a page. */
const LONGEST_CREDIT = 300;

/** Who made the data of a street map, in words: its file often says so in HTML, with links. */
export const creditOf = ({ attribution }: Pick<KeptStreets, 'attribution'>): string => shorten(plainText(attribution), LONGEST_CREDIT);

/** Who made what a map shows, in a reader's words: lakes, the site's own drawing, the streets; empty where nobody is to be named. */
export const mapCredits = (
  w: ReadersWords['map'],
  chart: Chart | undefined,
  streets: KeptStreets | undefined,
  lakes = hasLakes(chart?.features ?? []),
): string =>
  [
    lakes && w.lakes(),
    chart?.credit && w.drawing({ credit: chart.credit }),
    streets && creditOf(streets) && w.streets({ credit: creditOf(streets) }),
  ]
    .filter(Boolean)
    .join(' ');

/** A street map in words. */
export function sayStreets({ name, bytes, bounds, minZoom, maxZoom, attribution }: KeptStreets) {
  const corner = (lat: number, lng: number): string => `${lat.toFixed(2)}, ${lng.toFixed(2)}`;
  const [from, to] = [corner(bounds.south, bounds.west), corner(bounds.north, bounds.east)];
  return { name, size: inWords(bytes), from, to, minZoom, maxZoom, attribution: creditOf({ attribution }) };
}

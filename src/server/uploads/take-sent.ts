/** What becomes of a file that was sent: streets or a drawing on the map, or addresses in which places are found. */
import { z } from 'zod';
import type { Actor } from '../accounts/roles';
import { addMap, isDrawingAt } from '../map/operator';
import { addAddresses } from '../places/address-operator';
import { read } from '../problem';
import type { Runtime } from '../runtime-type';
import { serverWords } from '@/words/desk';

const w = serverWords.uploads;
const input = z.object({ as: z.enum(['map', 'addresses']), credit: z.string().trim().max(300).default('') });

/** So many things that were left out are named. */
const MOST_NAMED = 5;

type Site = Pick<Runtime, 'uploads' | 'addressBook' | 'db' | 'world' | 'streets' | 'settings' | 'contentChanged'>;

/**
 * Takes a sent file in and says what came of it, line by line. The file is gone afterwards.
 * @throws Problem that says why it is not taken
 */
export async function takeSent(site: Site, id: string, sent: unknown, by: Actor): Promise<string[]> {
  const { as, credit } = read(input, sent);
  try {
    const { path } = await site.uploads.take(id);
    return as === 'map' ? await takeMap(site, path, credit, by) : await takeAddresses(site, path, credit, by);
  } finally {
    await site.uploads.discard(id);
  }
}

/** The first few of what was left out, and how many more there are. */
function named(all: readonly string[], total: number): string[] {
  const shown = all.slice(0, MOST_NAMED);
  return total > shown.length ? [...shown, w.andMore({ n: total - shown.length })] : shown;
}

async function takeMap(site: Site, path: string, credit: string, by: Actor): Promise<string[]> {
  const drawing = await isDrawingAt(path);
  const added = await addMap(site, { path, credit: drawing ? credit : '' }, by);
  // An archive says itself who made its data.
  if ('streets' in added) return [w.streetsThere({ name: added.streets.name }), ...(credit ? [w.ownCredit()] : [])];
  const { name, counts, plain, leftOut, wrong, alone } = added.own;
  const n = Object.values(counts).reduce((sum, one) => sum + one, 0);
  return [
    w.drawingThere({ name, n, alone: alone ? 'yes' : 'no' }),
    ...(plain ? [w.plain({ n: plain })] : []),
    ...named(
      wrong.map((one) => w.leftOutFeature({ n: one.n, reason: one.reason })),
      leftOut,
    ),
  ];
}

async function takeAddresses(site: Site, path: string, credit: string, by: Actor): Promise<string[]> {
  const { name, addresses, streets, leftOut, wrong } = await addAddresses(site, { path, credit }, by);
  return [
    w.addressesThere({ name, addresses, streets }),
    ...named(
      wrong.map(({ line, reason }) => w.leftOutRow({ line, reason })),
      leftOut,
    ),
  ];
}

/** What the command line does with the street map. */
import { z } from 'zod';
import { plainText, shorten } from '@/core/text/text';
import type { Actor } from '../accounts/roles';
import { read } from '../problem';
import type { Runtime } from '../runtime-type';
import { inWords } from './archive-file';
import type { KeptStreets } from './kept-streets';

const input = z.object({ path: z.string().min(1).max(4000) });

type Site = Pick<Runtime, 'streets' | 'settings' | 'contentChanged'>;

/** An attribution has at most so many characters on a page. */
const LONGEST_CREDIT = 300;

/** Who made the data of a street map, in words: its file often says so in HTML, with links. */
export const creditOf = ({ attribution }: Pick<KeptStreets, 'attribution'>): string => shorten(plainText(attribution), LONGEST_CREDIT);

/** A street map in words. */
export function sayStreets({ name, bytes, bounds, minZoom, maxZoom, attribution }: KeptStreets) {
  const corner = (lat: number, lng: number): string => `${lat.toFixed(2)}, ${lng.toFixed(2)}`;
  const [from, to] = [corner(bounds.south, bounds.west), corner(bounds.north, bounds.east)];
  return { name, size: inWords(bytes), from, to, minZoom, maxZoom, attribution: creditOf({ attribution }) };
}

/** Takes a file of this machine in. */
export async function addStreets(
  { streets, settings, contentChanged }: Site,
  sent: unknown,
  by: Actor,
): Promise<ReturnType<typeof sayStreets>> {
  const kept = await streets.add(read(input, sent).path, settings(), by, new Date());
  await contentChanged();
  return sayStreets(kept);
}

/** Takes the streets away with their file; null where there were none. */
export async function removeStreets({ streets, contentChanged }: Site, by: Actor): Promise<ReturnType<typeof sayStreets> | null> {
  const kept = await streets.remove(by);
  await contentChanged();
  return kept ? sayStreets(kept) : null;
}

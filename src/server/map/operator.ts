/** What the command line does with the map: streets from an archive, a drawing of the site's own. */
import { open } from 'node:fs/promises';
import { z } from 'zod';
import type { Actor } from '../accounts/roles';
import { Problem, read } from '../problem';
import type { Runtime } from '../runtime-type';
import { type AddedMap, addOwnMap, looksLikeJson, ownMapOf, removeOwnMap } from './own-map';
import { sayStreets } from './say-streets';
import { serverWords } from '@/words/desk';

const w = serverWords.ownMap;

const adding = z.object({ path: z.string().min(1).max(4000), credit: z.string().trim().max(300).default('') });
const removing = z.object({ name: z.string().max(400).default('') });

type Site = Pick<Runtime, 'db' | 'world' | 'streets' | 'settings' | 'contentChanged'>;
type Said = ReturnType<typeof sayStreets>;

/** What a drawing is called that was given before drawings had names. */
const NAMELESS = 'drawing';

/** So much of a file tells what it is. */
const LOOKED_AT = 64;

async function beginningOf(path: string): Promise<string> {
  const handle = await open(path, 'r').catch(() => undefined);
  if (!handle) throw new Problem('invalid', serverWords.streets.noFile({ path }));
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(LOOKED_AT), 0, LOOKED_AT, 0);
    return buffer.toString('utf8', 0, bytesRead);
  } catch {
    // A folder, for one.
    throw new Problem('invalid', serverWords.streets.noFile({ path }));
  } finally {
    await handle.close();
  }
}

/** Is a file of this machine a drawing? Anything else should be an archive of streets. */
export const isDrawingAt = async (path: string): Promise<boolean> => looksLikeJson(await beginningOf(path));

/** Takes a file of this machine in: GeoJSON is a drawing, anything else should be an archive of streets. */
export async function addMap(site: Site, sent: unknown, by: Actor): Promise<{ streets: Said } | { own: AddedMap }> {
  const { path, credit } = read(adding, sent);
  const isDrawing = await isDrawingAt(path);
  if (!isDrawing && credit) throw new Problem('invalid', w.noCredit());
  const added = isDrawing
    ? { own: await addOwnMap(site, { path, credit }, by, new Date()) }
    : { streets: sayStreets(await site.streets.add(path, site.settings(), by, new Date())) };
  await site.contentChanged();
  return added;
}

/** What the map has. */
export async function sayMap({ db, streets }: Site): Promise<{ streets: Said | null; own: { name: string; features: number } | null }> {
  const [kept, own] = [await streets.kept(), await ownMapOf(db)];
  return { streets: kept ? sayStreets(kept) : null, own: own ? { name: own.name || NAMELESS, features: own.features.length } : null };
}

/** Takes away what is called that, or the one thing that there is; the answer says which it was, null where there was nothing. */
export async function removeMap(site: Site, sent: unknown, by: Actor): Promise<{ streets: Said } | { own: string } | null> {
  const { name } = read(removing, sent);
  const { streets, own } = await sayMap(site);
  if (!name && streets && own) throw new Problem('conflict', w.which({ streets: streets.name, own: own.name }));
  const gone = streets && (!name || name === streets.name) ? { streets } : own && (!name || name === own.name) ? { own: own.name } : null;
  if (!gone && name) throw new Problem('missing', w.noSuch({ name }));
  if (gone && 'streets' in gone) await site.streets.remove(by);
  else if (gone) await removeOwnMap(site, by);
  await site.contentChanged();
  return gone;
}

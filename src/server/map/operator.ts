/** What the command line does with the street map. */
import { z } from 'zod';
import type { Actor } from '../accounts/roles';
import { read } from '../problem';
import type { Runtime } from '../runtime-type';
import { sayStreets } from './say-streets';

const input = z.object({ path: z.string().min(1).max(4000) });

type Site = Pick<Runtime, 'streets' | 'settings' | 'contentChanged'>;

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

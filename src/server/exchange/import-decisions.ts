/** What somebody decides about the words of a file, for this and all later files. */
import { eq } from 'drizzle-orm';
import { isZone } from '@/core/day/zone';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { importBatch } from '../db/schema';
import { BLANK_ORGANIZER, saveOrganizer } from '../organizers/write';
import { saveCategory } from '../categories/write';
import { BLANK_VENUE } from '../venues/input';
import { saveVenue } from '../venues/write';
import { saveMatches } from './word-matches';
import type { Open } from './import-plan';
import type { Batch } from './import-file';

/** `new` makes it here, empty leaves it aside, else an id. */
export interface Decision extends Pick<Open, 'kind' | 'said' | 'mail'> {
  target: string;
}

/** Keeps decisions; what is to be made is made. */
export async function decide(tx: Db, batch: Batch, decisions: Decision[], zones: Record<string, string>, by: Actor): Promise<void> {
  const kept = [];
  for (const { kind, said, mail, target } of decisions)
    kept.push({ kind, said, target: target === 'new' ? await make(tx, kind, said, mail, by) : target || null });
  await saveMatches(tx, kept);
  const known = Object.fromEntries(Object.entries(zones).filter(([, zone]) => zone && isZone(zone)));
  await tx
    .update(importBatch)
    .set({ options: { ...batch.options, zones: { ...batch.options.zones, ...known } } })
    .where(eq(importBatch.id, batch.id));
}

async function make(tx: Db, kind: Decision['kind'], said: string, mail: string, by: Actor): Promise<string | null> {
  const name = said.slice(0, 120);
  if (kind === 'venue') {
    return (await saveVenue(tx, null, { ...BLANK_VENUE, name }, by)).id;
  }
  if (kind === 'organizer') return (await saveOrganizer(tx, null, { ...BLANK_ORGANIZER, name, mail }, by)).id;
  return saveCategory(tx, null, { name: said.slice(0, 60), shape: 'disc', ink: PLAIN_INK, parentId: null }, by);
}

/** The ink of a category that nobody has chosen one for. */
const PLAIN_INK = '#4a5560';

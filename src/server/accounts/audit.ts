/** The line that remembers who did what to which thing. */
import { type Happening, toKeep } from '../history/happening';
import type { Db } from '../db/client';
import { newId } from '../db/ids';
import { audit } from '../db/schema';
import type { Actor } from './roles';

/** `at`: the site's time where the line is shown with other times of the site; else real time. */
export async function audited(
  tx: Db,
  by: Actor,
  { kind, id, what }: { kind: string; id: string; what: Happening },
  at = new Date(),
): Promise<void> {
  await tx.insert(audit).values({ id: newId(), at, byId: by.id, byName: by.name, what: toKeep(what), kind, subjectId: id });
}

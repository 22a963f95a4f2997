/** The line that remembers who did what to which thing. */
import type { Db } from '../db/client';
import { newId } from '../db/ids';
import { audit } from '../db/schema';
import type { Actor } from './roles';

export async function audited(tx: Db, by: Actor, { kind, id, what }: { kind: string; id: string; what: string }): Promise<void> {
  await tx.insert(audit).values({ id: newId(), at: new Date(), byId: by.id, byName: by.name, what, kind, subjectId: id });
}

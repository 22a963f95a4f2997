/** Pictures as the Desk names them. */
import { inArray } from 'drizzle-orm';
import type { Db } from '../db/client';
import { picture } from '../db/schema';

/** What pictures show, by their ids; one without a description is called that. */
export async function readPictureNames(db: Db, ids: readonly string[]): Promise<Map<string, string>> {
  if (!ids.length) return new Map();
  const rows = await db
    .select({ id: picture.id, alt: picture.alt })
    .from(picture)
    .where(inArray(picture.id, [...new Set(ids)]));
  return new Map(rows.map(({ id, alt }) => [id, alt || 'a picture without a description']));
}

/** The index of all listings' titles, kept in memory and brought up to date by what changed since it was last asked. */
import { sql } from 'drizzle-orm';
import { TitleIndex } from '@/core/match/title-index';
import type { Db } from '../db/client';
import { jsonRows } from '../db/json-rows';

interface Kept {
  index: TitleIndex;
  /** of each listing in it, to know again what changed */
  revisions: Map<string, number>;
  revision: string;
}

let known: Kept = { index: new TitleIndex(), revisions: new Map(), revision: '' };

/** The index as it stands at a revision of the content: listings that are in the bin, or still hidden, are not in it. */
export async function titlesOf(db: Db, contentRevision: string): Promise<TitleIndex> {
  if (known.revision === contentRevision) return known.index;
  const rows = await jsonRows<{ id: string; title: string; revision: number }>(
    db,
    sql`select l.id, l.title, l.revision from listing l where l.stage <> 'binned'
      and (l.job_id is null or not exists (select 1 from job j where j.id = l.job_id and j.hidden))`,
  );
  const there = new Set<string>();
  for (const { id, title, revision } of rows) {
    there.add(id);
    if (known.revisions.get(id) === revision) continue;
    known.index.set(id, title);
    known.revisions.set(id, revision);
  }
  for (const id of known.revisions.keys()) {
    if (there.has(id)) continue;
    known.index.delete(id);
    known.revisions.delete(id);
  }
  known = { ...known, revision: contentRevision };
  return known.index;
}

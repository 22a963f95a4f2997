/** The index of all listings' titles, kept in memory and brought up to date by what changed since it was last asked. */
import { sql } from 'drizzle-orm';
import { TitleIndex } from '@/core/match/title-index';
import type { Db } from '../db/client';
import { jsonRows } from '../db/json-rows';
import type { ContentCache } from '../site/content-cache';

interface Kept {
  index: TitleIndex;
  /** of each listing in it, to know again what changed */
  revisions: Map<string, number>;
  revision: string;
}

/** The index as the content stands now: listings that are in the bin, or still hidden, are not in it. */
export async function titlesOf(db: Db, cache: ContentCache): Promise<TitleIndex> {
  const known = cache.keep<Kept>('titles', () => ({ index: new TitleIndex(), revisions: new Map(), revision: '' }));
  const { revision: current } = cache.now();
  if (known.revision === current) return known.index;
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
  known.revision = current;
  return known.index;
}

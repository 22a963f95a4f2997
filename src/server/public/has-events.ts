/** Whether readers find anything at all here. */
import type { ContentCache } from '../site/content-cache';
import type { Db } from '../db/client';
import { published } from '../db/schema';

/** Is anything published? Asked once for each state of what readers may see. */
export function hasEvents(rt: { db: Db; cache: ContentCache }): Promise<boolean> {
  const ask = async (): Promise<boolean> => (await rt.db.select({ id: published.listingId }).from(published).limit(1)).length > 0;
  return rt.cache.ofReaders().of('any event', ask);
}

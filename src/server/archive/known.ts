/** Which rows of an archive are in the site by now, so that nothing points to what is not there. */
import type { PgTable } from 'drizzle-orm/pg-core';
import type { ListingContent } from '@/core/listing/content';
import type { Db } from '../db/client';

/** Says that something was left out, in a sentence. */
export type Left = (sentence: string) => void;

type Kind = 'picture' | 'category' | 'tag' | 'venue' | 'organizer';
const WORDS: Record<Kind, string> = {
  picture: 'a picture',
  category: 'a category',
  tag: 'a tag',
  venue: 'a venue',
  organizer: 'an organizer',
};

/** The ids of an archive that are there, so that what points to others can be dropped and said. */
export class Known implements Record<Kind, ReadonlySet<string>> {
  picture: ReadonlySet<string> = new Set();
  category: ReadonlySet<string> = new Set();
  tag: ReadonlySet<string> = new Set();
  venue: ReadonlySet<string> = new Set();
  organizer: ReadonlySet<string> = new Set();

  constructor(private readonly left: Left) {}

  /** The id where it is known; else null, which is said of `whose`. */
  one(id: string | null, kind: Kind, whose: string): string | null {
    if (id === null || this[kind].has(id)) return id;
    this.left(`${whose} names ${WORDS[kind]} that is not in the archive; that is left out.`);
    return null;
  }

  /** The same for what stands under another row of its own list. */
  within(id: string | null, kind: 'category' | 'venue', rows: readonly { id: string }[], name: string): string | null {
    if (id === null || rows.some((row) => row.id === id)) return id;
    this.left(`“${name}” stands under ${WORDS[kind]} that is not in the archive; it stands alone now.`);
    return null;
  }

  /** A content that names only what is there; the same value when that is so already. */
  content(content: ListingContent, whose: string): ListingContent {
    const lacking = new Set<Kind>();
    const some = (ids: string[], kind: Kind): string[] => {
      const kept = ids.filter((id) => this[kind].has(id));
      if (kept.length < ids.length) lacking.add(kind);
      return kept;
    };
    const next = {
      ...content,
      categoryIds: some(content.categoryIds, 'category'),
      tagIds: some(content.tagIds, 'tag'),
      venueIds: some(content.venueIds, 'venue'),
      organizerIds: some(content.organizerIds, 'organizer'),
      galleryIds: some(content.galleryIds, 'picture'),
      pictureId: content.pictureId && (some([content.pictureId], 'picture')[0] ?? null),
      changes: content.changes.map(({ venueId, ...change }) =>
        venueId && some([venueId], 'venue').length ? { ...change, venueId } : change,
      ),
    };
    if (!lacking.size) return content;
    this.left(`${whose} names ${[...lacking].map((kind) => WORDS[kind]).join(' and ')} not in the archive; that is left out.`);
    return next;
  }
}

/** Rows of one statement: the database takes so many values at a time. */
const CHUNK = 200;

/** Inserts rows without ids of their own; of those that have the same key, the first. The others are said. */
export async function insertOnce<T>(
  tx: Db,
  table: PgTable,
  rows: readonly T[],
  { key, nameOf, left }: { key: (row: T) => string; nameOf: (row: T) => string; left: Left },
): Promise<void> {
  const seen = new Set<string>();
  const first = rows.filter((row) => {
    const isNew = !seen.has(key(row));
    if (isNew) seen.add(key(row));
    else left(`${nameOf(row)} is left out: it is there twice.`);
    return isNew;
  });
  for (let i = 0; i < first.length; i += CHUNK) await tx.insert(table).values(first.slice(i, i + CHUNK) as never);
}

/** Inserts rows with ids of their own. The answer is the ids that were new; rows that another one keeps out are said. */
export async function insertNew<T extends { id: string }>(
  tx: Db,
  table: PgTable & { id: unknown },
  rows: readonly T[],
  nameOf: (row: T) => string,
  left: Left,
): Promise<Set<string>> {
  const done = new Set<string>();
  for (let i = 0; i < rows.length; i += CHUNK) {
    const some = rows.slice(i, i + CHUNK);
    const made = (await tx
      .insert(table)
      .values(some as never)
      .onConflictDoNothing()
      .returning()) as { id: string }[];
    const there = new Set(made.map(({ id }) => id));
    for (const row of some) {
      if (there.has(row.id)) done.add(row.id);
      else left(`${nameOf(row)} is left out: another one in the archive has its id or its web address.`);
    }
  }
  return done;
}

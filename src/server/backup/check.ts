/** Looks at everything that is derived from something else, says what differs, and makes it right where that is wanted. */
import { asc, eq, gt, inArray, sql } from 'drizzle-orm';
import sharp from 'sharp';
import { allTexts, type ListingContent } from '@/core/listing/content';
import { picturesInText } from '@/core/picture/picture-url';
import { canonical } from '@/core/text/canonical-json';
import type { Db } from '../db/client';
import { isId } from '../db/ids';
import { queryRows } from '../db/json-rows';
import { link, listing, picture, pictureSource, published } from '../db/schema';
import { linkRows, textPictureLinks, writeLinks } from '../listings/links';
import { publishedValues } from '../listings/published-copy';
import { searchOf } from '../pictures/read';

/** What can differ. */
export type CheckedPart = 'links' | 'published' | 'next' | 'picture-words' | 'picture-bytes';

/** One thing that differs. */
export interface Difference {
  part: CheckedPart;
  /** the listing's address or the picture's name */
  name: string;
  /** which of its fields, where several can differ */
  what: string;
  /** was it made right? What is lost cannot be */
  mended: boolean;
}

/** What was looked at, and what differs; the first of it. */
export interface CheckReport {
  listings: number;
  pictures: number;
  differences: Difference[];
  count: number;
}

const AT_ONCE = 100;
const MOST_NAMED = 500;

type Copy = 'working' | 'published';

/** Looks at all listings and pictures. @param today for what is next */
export async function checkSite(db: Db, { mend, today }: { mend: boolean; today: number }): Promise<CheckReport> {
  const report: CheckReport = { listings: 0, pictures: 0, differences: [], count: 0 };
  const found = (difference: Difference): void => {
    report.count++;
    if (report.differences.length < MOST_NAMED) report.differences.push(difference);
  };
  for (let after: string | undefined; ; ) {
    const last: string | undefined = await db.transaction((tx) => checkListings(tx, { after, mend, report }, found));
    if (!last) break;
    after = last;
  }
  await checkNext(db, { mend, today }, found);
  for (let after = ''; ; ) {
    const last = await checkPictures(db, { after, mend, report }, found);
    if (!last) break;
    after = last;
  }
  return report;
}

interface Progress<T> {
  after: T;
  mend: boolean;
  report: CheckReport;
}

async function checkListings(
  tx: Db,
  { after, mend, report }: Progress<string | undefined>,
  found: (difference: Difference) => void,
): Promise<string | undefined> {
  const rows = await tx
    .select({ row: listing, copy: published })
    .from(listing)
    .leftJoin(published, eq(published.listingId, listing.id))
    .where(after ? gt(listing.id, after) : undefined)
    .orderBy(asc(listing.id))
    .limit(AT_ONCE);
  const ids = rows.map(({ row }) => row.id);
  const links = ids.length ? await tx.select().from(link).where(inArray(link.listingId, ids)) : [];
  const texts = rows
    .flatMap(({ row, copy }) => [row.working, ...(copy ? [copy.content] : [])])
    .flatMap((content) => picturesInText(allTexts(content)));
  const named = [...new Set(texts)].filter(isId);
  const there = named.length
    ? (await tx.select({ id: picture.id }).from(picture).where(inArray(picture.id, named))).map(({ id }) => id)
    : [];
  for (const { row, copy } of rows) {
    report.listings++;
    const copies: [Copy, ListingContent][] = [
      ['working', row.working],
      ...(copy ? [['published', copy.content] as [Copy, ListingContent]] : []),
    ];
    for (const [which, content] of copies) {
      const inText = picturesInText(allTexts(content)).filter((id) => there.includes(id));
      const should = [...linkRows(row.id, which, content), ...textPictureLinks(row.id, which, content, [...new Set(inText)])];
      const is = links.filter((one) => one.listingId === row.id && one.copy === which);
      if (textsOf(should) === textsOf(is)) continue;
      if (mend) await writeLinks(tx, row.id, which, content);
      found({ part: 'links', name: row.slug, what: which, mended: mend });
    }
    if (!copy) continue;
    const { sequence, publishedAt, changedAt: at, categoryId } = copy;
    const should = publishedValues(row, copy.content, { sequence, publishedAt, at, fallback: categoryId });
    const wrong = Object.entries(should).filter(
      ([name, value]) => canonical(value ?? null) !== canonical(copy[name as keyof typeof copy] ?? null),
    );
    if (!wrong.length) continue;
    if (mend) await tx.update(published).set(should).where(eq(published.listingId, row.id));
    found({ part: 'published', name: row.slug, what: wrong.map(([name]) => name).join(', '), mended: mend });
  }
  return ids.at(-1);
}

/** Links as text, in one order. */
function textsOf(rows: readonly (typeof link.$inferInsert)[]): string {
  const texts = rows.map(({ position, categoryId, venueId, organizerId, pictureId, tagId }) =>
    JSON.stringify([position, categoryId ?? null, venueId ?? null, organizerId ?? null, pictureId ?? null, tagId ?? null]),
  );
  return texts.sort().join('\n');
}

/** What is next of each listing, which the Desk sorts by. What was over since the last round is the next round's matter, and no difference. */
async function checkNext(
  db: Db,
  { mend, today }: { mend: boolean; today: number },
  found: (difference: Difference) => void,
): Promise<void> {
  const next = sql`left join lateral (select d.start_day, d.start_minute, d.last_day from occurrence d where d.listing_id = l.id and d.last_day >= ${today}
    order by d.start_day, d.start_minute nulls first limit 1) n on true`;
  const wrong = await queryRows<{ id: string; slug: string }>(
    db,
    sql`select l.id, l.slug from listing l ${next} where (l.next_last is null or l.next_last >= ${today})
      and (l.next_day, l.next_minute, l.next_last) is distinct from (n.start_day, n.start_minute, n.last_day) order by l.id`,
  );
  if (mend)
    for (const { id } of wrong)
      await db.execute(
        sql`update listing u set next_day = n.start_day, next_minute = n.start_minute, next_last = n.last_day from listing l ${next} where l.id = u.id and u.id = ${id}`,
      );
  for (const { slug } of wrong) found({ part: 'next', name: slug, what: '', mended: mend });
}

async function checkPictures(
  db: Db,
  { after, mend, report }: Progress<string>,
  found: (difference: Difference) => void,
): Promise<string | undefined> {
  const rows = await db
    .select({ row: picture, bytes: pictureSource.bytes, width: pictureSource.width, height: pictureSource.height })
    .from(picture)
    .innerJoin(pictureSource, eq(pictureSource.hash, picture.hash))
    .where(after ? gt(picture.id, after) : undefined)
    .orderBy(asc(picture.id))
    // One at a time: each may have megabytes.
    .limit(1);
  const [one] = rows;
  if (!one) return undefined;
  report.pictures++;
  const { row, bytes, width, height } = one;
  const name = row.alt || row.name;
  if (row.search !== searchOf(row)) {
    if (mend)
      await db
        .update(picture)
        .set({ search: searchOf(row) })
        .where(eq(picture.id, row.id));
    found({ part: 'picture-words', name, what: '', mended: mend });
  }
  const seen = await sharp(Buffer.from(bytes))
    .metadata()
    .catch(() => undefined);
  if (seen?.width !== width || seen.height !== height) found({ part: 'picture-bytes', name, what: '', mended: false });
  return row.id;
}

/** The library: all pictures, searched and filtered. */
import { and, desc, isNotNull, isNull, type SQL, sql } from 'drizzle-orm';
import { firstDayOfMonth, parseIsoMonth } from '@/core/day/day';
import { dateTimeToInstant } from '@/core/day/zone';
import { COVER_WIDTH, ENLARGED } from '@/core/validation/picture-checks';
import { fold } from '@/core/text/text';
import type { Db } from '../db/client';
import { category, link, organizer, picture, venue } from '../db/schema';
import { PICTURE_AT } from '../listings/links';
import type { PictureRow } from './read';
import { countOfUses } from './uses';
import { serverWords } from '@/words/desk';

const w = serverWords.picturesLibrary;

/** Where pictures can be shown, as the library's filter says it. */
export const SHOWN_AS = {
  used: w.inUse(),
  unused: w.notInUse(),
  cover: w.asACover(),
  gallery: w.inAGallery(),
  text: w.inAText(),
  venue: w.byAVenue(),
  organizer: w.byAnOrganizer(),
  category: w.byACategory(),
} as const;
/** The shapes that the library is filtered by. */
export const SHAPES = { wide: w.widerThanHigh(), tall: w.higherThanWide(), square: w.aboutSquare() } as const;
/** What pictures can lack. */
export const LACKING = { alt: w.withoutADescription(), small: w.tooSmall(), soft: w.enlargedBlurred() } as const;
/** The library shows so many pictures a page. */
export const PAGE = 48;

/** What the library's address asks for. */
export interface LibraryQuery {
  words: string;
  use: keyof typeof SHOWN_AS | '';
  shape: keyof typeof SHAPES | '';
  lacking: keyof typeof LACKING | '';
  /** sent in this month, `2027-03` */
  month: string;
  binned: boolean;
  /** from 1 */
  page: number;
}

const oneOf = <T extends object>(set: T, text: string | null): keyof T | '' => (text && Object.hasOwn(set, text) ? (text as keyof T) : '');

/** What the library is asked for, as it stands in the address. */
export function readLibraryQuery(params: URLSearchParams): LibraryQuery {
  const month = params.get('month') ?? '';
  const page = Number(params.get('page') ?? '1');
  return {
    words: (params.get('words') ?? '').trim().slice(0, 100),
    use: oneOf(SHOWN_AS, params.get('use')),
    shape: oneOf(SHAPES, params.get('shape')),
    lacking: oneOf(LACKING, params.get('lacking')),
    month: /^\d{4}-(0[1-9]|1[0-2])$/.test(month) ? month : '',
    binned: params.get('bin') === '1',
    page: Number.isInteger(page) && page > 0 && page < 10_000 ? page : 1,
  };
}

const has = (part: SQL): SQL => sql`exists (select 1 from ${link} where ${link.pictureId} = ${picture.id} and ${part})`;
const USES: Record<keyof typeof SHOWN_AS, SQL> = {
  used: sql`${countOfUses} > 0`,
  unused: sql`${countOfUses} = 0`,
  cover: has(sql`${link.position} = ${PICTURE_AT.cover}`),
  gallery: has(sql`${link.position} between ${PICTURE_AT.gallery} and ${PICTURE_AT.text - 1}`),
  text: has(sql`${link.position} >= ${PICTURE_AT.text}`),
  venue: sql`exists (select 1 from ${venue} where ${venue.pictureId} = ${picture.id})`,
  organizer: sql`exists (select 1 from ${organizer} where ${organizer.pictureId} = ${picture.id})`,
  category: sql`exists (select 1 from ${category} where ${category.pictureId} = ${picture.id})`,
};
const FORMS: Record<keyof typeof SHAPES, SQL> = {
  wide: sql`${picture.width} > ${picture.height} * 1.15`,
  tall: sql`${picture.height} > ${picture.width} * 1.15`,
  square: sql`${picture.width} <= ${picture.height} * 1.15 and ${picture.height} <= ${picture.width} * 1.15`,
};
const WANTS: Record<keyof typeof LACKING, SQL> = {
  alt: sql`${picture.alt} = ''`,
  small: sql`least(${picture.width}, ${picture.height} * 16.0 / 9) < ${COVER_WIDTH}`,
  soft: sql`${picture.detail} < ${ENLARGED}`,
};

/** A page of the library. */
export interface LibraryPage {
  rows: (PictureRow & { uses: number })[];
  total: number;
}

/** One page of the library. */
export async function readLibrary(db: Db, query: LibraryQuery, { zone }: { zone: string }): Promise<LibraryPage> {
  const wanted = fold(query.words)
    .split(/\s+/)
    .filter(Boolean)
    .map((word) => sql`${picture.search} like ${`%${word.replace(/[%_\\]/g, '\\$&')}%`}`);
  const where = and(
    query.binned ? isNotNull(picture.binnedAt) : isNull(picture.binnedAt),
    ...wanted,
    query.use ? USES[query.use] : undefined,
    query.shape ? FORMS[query.shape] : undefined,
    query.lacking ? WANTS[query.lacking] : undefined,
    query.month ? inMonth(query.month, zone) : undefined,
  );
  const rows = await db
    .select({ row: picture, uses: countOfUses, total: sql<number>`count(*) over ()::int` })
    .from(picture)
    .where(where)
    .orderBy(desc(picture.createdAt), desc(picture.id))
    .limit(PAGE)
    .offset((query.page - 1) * PAGE);
  return { rows: rows.map(({ row, uses }) => ({ ...row, uses })), total: rows[0]?.total ?? 0 };
}

function inMonth(month: string, zone: string): SQL {
  const number = parseIsoMonth(month) ?? 0;
  const at = (which: number): string => new Date(dateTimeToInstant(zone, { day: firstDayOfMonth(which), minute: 0 }).ms).toISOString();
  return sql`${picture.createdAt} >= ${at(number)}::timestamptz and ${picture.createdAt} < ${at(number + 1)}::timestamptz`;
}

/** Which listing a row of a file is: by what its own source knows it by, else asked; never guessed over another's. */
import { and, inArray, ne, sql } from 'drizzle-orm';
import { addTo } from '@/core/collections/add-to';
import { parseIsoDateTime } from '@/core/day/plain-date-time';
import { NO_UID } from '@/core/exchange/ical-event';
import type { Incoming } from '@/core/exchange/incoming';
import type { ListingContent } from '@/core/listing/content';
import { type Style, sayDay } from '@/core/phrase/format';
import { fold } from '@/core/text/text';
import type { Db } from '../db/client';
import { importSource, listing } from '../db/schema';
import { serverWords } from '@/words/desk';

const w = serverWords.exchangeIdentity;

/** A listing's row. */
export type ListingRow = typeof listing.$inferSelect;
/** What a file said last of a listing. */
export type SourceRow = typeof importSource.$inferSelect;

/** What a row is taken for. */
export interface Identity {
  row?: ListingRow | undefined;
  /** what came of it before, from the same source */
  source?: SourceRow | undefined;
  /** it may be this listing: why, in a sentence; nothing is changed before somebody says so */
  doubt?: string;
}

/** Identifiers that hold everywhere: those of calendars, not numbers or titles of a table. */
const isGlobal = (uid: string): boolean => !uid.startsWith('csv:') && !uid.startsWith('json:') && !uid.startsWith(NO_UID);

const firstDay = ({ recurrence }: Partial<Pick<ListingContent, 'recurrence'>>): number | undefined => {
  const days = recurrence?.parts.flatMap(({ start }) => parseIsoDateTime(start)?.day ?? []) ?? [];
  return days.length ? Math.min(...days) : undefined;
};

/** Answers of somebody: the same listing, or another one. */
export type Answer = '' | 'same' | 'new';

/** Tells which listing a row of a file is: by its UID, by what came before, or by likeness. */
export class Identities {
  private constructor(
    private readonly source: string,
    private readonly sources: ReadonlyMap<string, SourceRow[]>,
    private readonly rows: ReadonlyMap<string, ListingRow>,
    private readonly byTitle: ReadonlyMap<string, ListingRow[]>,
    private readonly style: Style,
  ) {}

  /** Reads what is needed for some rows of a file from one source. */
  static async read(db: Db, source: string, items: readonly Incoming[], style: Style): Promise<Identities> {
    const uids = items.map((item) => item.uid);
    const known = await chunks(uids, (some) => db.select().from(importSource).where(inArray(importSource.uid, some)));
    const sources = groupBy(known, (one) => one.uid);
    const ids = [...new Set([...known.map((one) => one.listingId), ...items.flatMap((item) => item.ownId ?? [])])];
    const rows = await chunks(ids, (some) => db.select().from(listing).where(inArray(listing.id, some)));
    // Only what no source knows is looked for by its title.
    const isKnown = (uid: string): boolean => (sources.get(uid) ?? []).some((one) => one.source === source || one.source === '');
    const strange = items.filter((item) => !isKnown(item.uid) && !item.ownId);
    const titles = [...new Set(strange.flatMap(({ content }) => (content.title ? [content.title.toLowerCase()] : [])))];
    const alike = await chunks(titles, (some) =>
      db
        .select()
        .from(listing)
        // What came from the same source under another name is another event.
        .where(
          and(
            inArray(sql`lower(${listing.title})`, some),
            ne(listing.stage, 'binned'),
            sql`not exists (select 1 from import_source s where s.listing_id = ${listing.id} and s.source = ${source})`,
          ),
        ),
    );
    return new Identities(
      source,
      sources,
      new Map(rows.map((row) => [row.id, row])),
      groupBy(alike, (row) => fold(row.title)),
      style,
    );
  }

  /** What said exactly the same before, wherever it came from: there is nothing to write, and nothing to ask. */
  saidBefore(item: Incoming, hash: string): Identity | undefined {
    const source = this.sources.get(item.uid)?.find((one) => one.hash === hash && this.rows.has(one.listingId));
    return source && { row: this.rows.get(source.listingId), source };
  }

  /** What a row is, as far as it is known or somebody said so. */
  of(item: Incoming, answer: Answer): Identity {
    const found = this.lookUp(item);
    if (!found.doubt || !answer) return found;
    return answer === 'same' ? { row: found.row, source: found.source } : {};
  }

  private lookUp(item: Incoming): Identity {
    const known = this.sources.get(item.uid) ?? [];
    const own = known.find((one) => one.source === this.source) ?? known.find((one) => one.source === '');
    const ownRow = own && this.rows.get(own.listingId);
    if (own && ownRow) {
      // A number that stood for something else before is no identity.
      const other = otherwise(item, own.content);
      return other ? { row: ownRow, source: own, doubt: w.underThisNameCame({ title: own.content.title }) } : { row: ownRow, source: own };
    }
    const byId = item.ownId ? this.rows.get(item.ownId) : undefined;
    if (byId) return { row: byId };
    const elsewhere = isGlobal(item.uid) ? known.find((one) => this.rows.has(one.listingId)) : undefined;
    if (elsewhere) return { row: this.rows.get(elsewhere.listingId), doubt: w.itCameBeforeFrom({ source: elsewhere.source }) };
    return this.byName(item);
  }

  /** The same title on the same first day: it is asked about, wherever either is. */
  private byName(item: Incoming): Identity {
    const day = firstDay(item.content);
    if (day === undefined) return {};
    const row = this.byTitle.get(fold(item.content.title ?? ''))?.find(({ working }) => firstDay(working) === day);
    return row ? { row, doubt: w.aListingOfThis({ day: sayDay(day, this.style, { year: true }) }) } : {};
  }
}

/** Which of these rows said exactly the same before, of a listing that is still there: `hash uid`. Reads no contents. */
export async function saidBefore(db: Db, rows: readonly { uid: string; hash: string }[]): Promise<Set<string>> {
  const known = await chunks(
    rows.map(({ uid }) => uid),
    (some) =>
      db
        .select({ uid: importSource.uid, hash: importSource.hash })
        .from(importSource)
        // One whose listing is gone is gone with it.
        .where(inArray(importSource.uid, some)),
  );
  const said = new Set(known.map(({ uid, hash }) => `${hash} ${uid}`));
  return new Set(rows.map(({ uid, hash }) => `${hash} ${uid}`).filter((key) => said.has(key)));
}

/** Does a row say another title and another first day than what came under its name before? */
function otherwise(item: Incoming, before: ListingContent): boolean {
  const title = fold(item.content.title ?? '') !== fold(before.title);
  return title && firstDay(item.content) !== firstDay(before);
}

function groupBy<T>(list: readonly T[], key: (one: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const one of list) addTo(groups, key(one), one);
  return groups;
}

async function chunks<T>(keys: readonly string[], read: (some: string[]) => Promise<T[]>): Promise<T[]> {
  const found: T[] = [];
  for (let at = 0; at < keys.length; at += 500) found.push(...(await read(keys.slice(at, at + 500))));
  return found;
}

/** What a source is called by its file: without its ending, its number and its date, so that next month's is the same. */
export function sourceOfFile(name: string): string {
  const plain = name
    .replace(/\.[a-z0-9]{1,5}$/i, '')
    .replace(/[([]\s*\d+\s*[)\]]|\bcopy\b/gi, ' ')
    .replace(/\d{4}[-_. ]?\d{0,2}[-_. ]?\d{0,2}|\b\d{1,2}\b/g, ' ')
    .replace(/[-_.\s]+/g, ' ')
    .trim();
  return (plain || name).slice(0, 80);
}

/**
 * What is merged into another or removed: venues, organizers, categories and tags alike. Listings follow in every copy, with a version
 * that says so, and all of it is taken back as one, around what people changed since.
 */
import type { Happening } from '../history/happening';
import { and, desc, eq, gt, inArray, isNull } from 'drizzle-orm';
import { freeSlug } from '@/core/text/text';
import { audited } from '../accounts/audit';
import type { Change } from '../listings/write';
import type { Db } from '../db/client';
import { newId } from '../db/ids';
import { category, type KeptKind, oldPlace, organizer, placeMerge, tag, venue } from '../db/schema';
import { notFound, Problem } from '../problem';
import { KEPT_DAYS } from '../listings/tidy';
import { moveOldAddresses } from './slugs';
import { type NamedField, putBack, replaceInContents } from './uses';
import { serverWords } from '@/words/desk';

const w = serverWords.placesRemoved;

const TABLE = { venue, organizer, category, tag };
const FIELD: Record<KeptKind, NamedField> = { venue: 'venueIds', organizer: 'organizerIds', category: 'categoryIds', tag: 'tagIds' };
const DAY_MS = 86_400_000;

interface Going {
  kind: KeptKind;
  row: { id: string; name: string; slug: string };
  /** what stands for it from now on; null = nothing does */
  to: { id: string; name: string } | null;
  /** what pointed to it beside listings: a hall's rooms, the organizers whose listings begin with a category */
  pointed?: string[];
  merged: boolean;
}

/** Something that was removed, and can be brought back. */
export interface Gone {
  /** by which it is taken back */
  command: string;
  name: string;
  /** listings that it touched, each once */
  listings: number;
}

/** How a listing says that something which it named is gone. */
function goneAs(name: string, into: string | undefined, merged: boolean): Happening {
  if (into === undefined) return { code: 'removed', name };
  return { code: merged ? 'mergedInto' : 'replaced', name, into };
}

/** Takes a thing out: everything that named it names `to`, or nothing. Its row is kept whole for taking that back. */
export async function takeOut(tx: Db, { kind, row, to, pointed = [], merged }: Going, change: Change): Promise<Gone> {
  const { by, now } = change;
  const at = new Date(now.ms);
  const hasAddresses = kind === 'venue' || kind === 'organizer';
  const old = hasAddresses
    ? await tx
        .select({ slug: oldPlace.slug })
        .from(oldPlace)
        .where(and(eq(oldPlace.kind, kind), eq(oldPlace.targetId, row.id)))
    : [];
  const did = goneAs(row.name, to?.name, merged);
  const listings = await replaceInContents(tx, { field: FIELD[kind], from: row.id, to: to?.id ?? null, what: did }, change);
  if (hasAddresses) await moveOldAddresses(tx, kind, row, to?.id ?? null);
  await tx.delete(TABLE[kind]).where(eq(TABLE[kind].id, row.id));
  const command = newId();
  const record = { format: 2 as const, row: { ...row }, listings, rooms: pointed, old: old.map((o) => o.slug), merged };
  // Where nothing stands for it, what it became is itself: nothing.
  await tx.insert(placeMerge).values({ id: command, kind, fromId: row.id, intoId: to?.id ?? row.id, record, byName: by.name, at });
  await audited(tx, by, { kind, id: merged && to ? to.id : row.id, what: { code: merged ? 'mergedWith' : 'removed', name: row.name } });
  return { command, name: row.name, listings: new Set(listings.map((l) => l.listingId)).size };
}

/** What was brought back, and what stayed as it is. */
export interface BroughtBack {
  kind: KeptKind;
  name: string;
  /** listings that are as before again, each once */
  listings: number;
  /** those that somebody changed since: they stay as they are */
  left: number;
}

/** Brings back what was merged or removed, and what listings named; what somebody changed since stays as it is. */
export async function bringBack(tx: Db, command: string, change: Change): Promise<BroughtBack> {
  const { by, now } = change;
  const at = new Date(now.ms);
  const [row] = await tx.select().from(placeMerge).where(eq(placeMerge.id, command)).for('update');
  if (!row) throw notFound('removal');
  if (row.undoneAt) throw new Problem('conflict', w.thatWasTakenBack());
  const { kind, record, fromId } = row;
  const to = row.intoId === fromId ? null : row.intoId;
  const name = String(record.row.name);
  await insertAgain(tx, kind, record.row);
  if (record.old.length && (kind === 'venue' || kind === 'organizer'))
    for (const slug of record.old)
      await tx
        .insert(oldPlace)
        .values({ kind, slug, targetId: fromId })
        .onConflictDoUpdate({ target: [oldPlace.kind, oldPlace.slug], set: { targetId: fromId } });
  await pointAgain(tx, kind, record.rooms, fromId, to);
  const back = new Set<string>();
  const left = new Set<string>();
  for (const one of record.listings) {
    const done = await putBack(tx, one, { field: FIELD[kind], from: fromId, to, what: { code: 'broughtBack', name } }, change);
    (done ? back : left).add(one.listingId);
  }
  await tx.update(placeMerge).set({ undoneAt: at }).where(eq(placeMerge.id, command));
  await audited(tx, by, { kind, id: fromId, what: { code: 'broughtBack', name } });
  return { kind, name, listings: back.size, left: [...left].filter((id) => !back.has(id)).length };
}

/** A row as it was kept: JSON knows no dates. */
const revived = (row: Record<string, unknown>): Record<string, unknown> =>
  'binnedAt' in row ? { ...row, binnedAt: row.binnedAt ? new Date(String(row.binnedAt)) : null } : row;

async function insertAgain(tx: Db, kind: KeptKind, kept: Record<string, unknown>): Promise<void> {
  const table = TABLE[kind];
  const row = revived(kept) as typeof venue.$inferInsert &
    typeof organizer.$inferInsert &
    typeof category.$inferInsert &
    typeof tag.$inferInsert;
  if (kind === 'tag') {
    const [taken] = await tx.select({ name: tag.name }).from(tag).where(eq(tag.folded, row.folded));
    if (taken) throw new Problem('conflict', w.thereIsATag({ name: taken.name }));
  }
  if (kind === 'venue' || kind === 'organizer') await tx.delete(oldPlace).where(and(eq(oldPlace.kind, kind), eq(oldPlace.slug, row.slug)));
  const all = await tx.select({ slug: table.slug }).from(table);
  await tx.insert(table).values({ ...row, slug: freeSlug(row.slug, new Set(all.map((other) => other.slug))) });
}

async function pointAgain(tx: Db, kind: KeptKind, pointed: readonly string[], fromId: string, to: string | null): Promise<void> {
  if (!pointed.length) return;
  if (kind === 'venue' && to)
    await tx
      .update(venue)
      .set({ parentId: fromId })
      .where(and(inArray(venue.id, [...pointed]), eq(venue.parentId, to)));
  if (kind === 'category')
    await tx
      .update(organizer)
      .set({ categoryId: fromId })
      .where(and(inArray(organizer.id, [...pointed]), isNull(organizer.categoryId)));
}

/** A removed row as it is kept. */
export interface Kept {
  id: string;
  name: string;
  /** what it became; null = it was removed, with nothing in its place */
  intoId: string | null;
  merged: boolean;
  byName: string;
  at: Date;
}

/** What was merged or removed lately and can be brought back, latest first. `into`: only what became this. */
export async function readKept(db: Db, kind: KeptKind, { since, into }: { since?: Date | undefined; into?: string } = {}): Promise<Kept[]> {
  const rows = await db
    .select()
    .from(placeMerge)
    .where(
      and(
        eq(placeMerge.kind, kind),
        isNull(placeMerge.undoneAt),
        since ? gt(placeMerge.at, since) : undefined,
        into ? eq(placeMerge.intoId, into) : undefined,
      ),
    )
    .orderBy(desc(placeMerge.at), desc(placeMerge.id))
    .limit(50);
  return rows.map(({ id, record, fromId, intoId, byName, at }) => ({
    ...{ id, byName, at, name: String(record.row.name), merged: record.merged ?? intoId !== fromId },
    intoId: intoId === fromId ? null : intoId,
  }));
}

/** From when on what went can be brought back: as long as the bin keeps. */
export const keptSince = (now: number): Date => new Date(now - KEPT_DAYS * DAY_MS);

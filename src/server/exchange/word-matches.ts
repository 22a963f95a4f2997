/** What a file's own words for places, organizers and categories mean here: decided by somebody once, else by name or position. */
import { distanceKm } from '@/core/geo/geo';
import type { Named } from '@/core/exchange/incoming';
import { fold } from '@/core/text/text';
import type { Db } from '../db/client';
import { importMatch } from '../db/schema';
import { placeLine } from '../public/feed';
import type { ReferenceData } from '../reference/read';

/** What words of a file can name. */
export type MatchKind = 'venue' | 'organizer' | 'category';
/** What words mean here: an id, or null for nothing. */
export type Decided = Map<string, string | null>;

/** `{kind} {folded words}` to an id, or null for "left aside". */
export const matchKey = (kind: MatchKind, said: string): string => `${kind} ${fold(said)}`;

/** What words of files were decided to mean. */
export async function readMatches(db: Db): Promise<Decided> {
  const rows = await db.select().from(importMatch);
  return new Map(rows.map((row) => [`${row.kind} ${row.said}`, row.target]));
}

/** Remembers decisions; a later one replaces an earlier. */
export async function saveMatches(tx: Db, decisions: { kind: MatchKind; said: string; target: string | null }[]): Promise<void> {
  for (const { kind, said, target } of decisions) {
    const values = { kind, said: fold(said), target };
    await tx
      .insert(importMatch)
      .values(values)
      .onConflictDoUpdate({ target: [importMatch.kind, importMatch.said], set: { target } });
  }
}

/** Near enough to be the same place, in kilometres. */
const SAME_PLACE_KM = 0.15;

/** An id, null for "left aside", undefined when nobody has decided. */
export type Meaning = string | null | undefined;

/** The venue that a file’s words mean; null = left out, undefined = nobody has said. */
export function venueOf({ name: location, point }: Named, reference: ReferenceData, decided: Decided): Meaning {
  if (!location && !point) return null;
  const known = decided.get(matchKey('venue', location));
  if (known === null || (known !== undefined && reference.venue.has(known))) return known;
  const said = fold(location);
  const named = reference.venues.filter((venue) => {
    const name = fold(venue.name);
    return said !== '' && (said === name || said === fold(placeLine(venue)) || said.startsWith(`${name},`));
  });
  // The whole name wins over one that the words only begin with.
  const exact = named.filter((venue) => fold(venue.name) === said);
  if (exact.length === 1) return exact[0]?.id;
  if (named.length === 1) return named[0]?.id;
  const near =
    point &&
    reference.venues.filter((v) => v.lat !== null && v.lng !== null && distanceKm(point, { lat: v.lat, lng: v.lng }) < SAME_PLACE_KM);
  return near?.length === 1 ? near[0]?.id : undefined;
}

/** The organizer that a file’s words mean; null = left out, undefined = nobody has said. */
export function organizerOf(named: Named, reference: ReferenceData, decided: Decided): Meaning {
  const { name, mail = '' } = named;
  const known = decided.get(matchKey('organizer', name));
  if (known === null || (known !== undefined && reference.organizer.has(known))) return known;
  return reference.organizers.find((o) => fold(o.name) === fold(name) || (mail !== '' && fold(o.mail) === fold(mail)))?.id;
}

/** The category that a file’s word means; null = left out, undefined = nobody has said. */
export function categoryOf(said: string, reference: ReferenceData, decided: Decided): Meaning {
  const known = decided.get(matchKey('category', said));
  if (known === null || (known !== undefined && reference.category.has(known))) return known;
  return reference.categories.find((c) => fold(c.name) === fold(said) || c.slug === fold(said))?.id;
}

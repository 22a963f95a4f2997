/** A sender's place and people that the site does not know: made, put to those it knows, or left out, as whoever decides says. */
import { z } from 'zod';
import type { ListingContent } from '@/core/listing/content';
import { likeNames } from '@/core/match/names';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { invalid } from '../http/problem';
import { BLANK_ORGANIZER, saveOrganizer } from '../organizers/write';
import type { Lookup } from '../public/lookup';
import { BLANK_VENUE } from '../venues/input';
import { saveVenue } from '../venues/write';

/** `make`, `leave-out`, or the id of the one that is meant. */
const choice = z.union([z.literal('make'), z.literal('leave-out'), z.uuid()]);
export const newPlacesInput = z.object({ where: choice.default('make'), who: choice.default('make') });
export type NewPlaces = z.infer<typeof newPlacesInput>;

export interface SaidPlaces {
  where: string;
  who: string;
}

/** What of the sender's words still has to become a venue or an organizer: nothing where an editor has named one since. */
export function openPlaces(content: Pick<ListingContent, 'venueIds' | 'organizerIds' | 'attendance'>, said: SaidPlaces): SaidPlaces {
  return {
    where: content.venueIds.length || content.attendance === 'online' ? '' : said.where.trim(),
    who: content.organizerIds.length ? '' : said.who.trim(),
  };
}

/** Known places and people that may be meant, likest first. */
export function likelyPlaces(
  { where, who }: SaidPlaces,
  found: Lookup,
): { where: { id: string; name: string }[]; who: { id: string; name: string }[] } {
  const likely = <T extends { id: string; name: string }>(name: string, all: readonly T[]): { id: string; name: string }[] =>
    name
      ? likeNames(name, all)
          .slice(0, 3)
          .map(({ item }) => ({ id: item.id, name: item.name }))
      : [];
  return { where: likely(where, found.venues), who: likely(who, found.organizers) };
}

/** Names have at most so many characters; what is longer stays in the sender's words only. */
const MOST = 120;

/**
 * The content with the sender's place and people in it, made where they are new. The very content when nothing was open.
 * @throws Problem at `where` or `who` when the words cannot be a name
 */
export async function placesMade(
  tx: Db,
  content: ListingContent,
  said: SaidPlaces,
  choices: NewPlaces | undefined,
  by: Actor,
): Promise<ListingContent> {
  const { where, who } = openPlaces(content, said);
  const { where: place, who: people } = choices ?? { where: 'make', who: 'make' };
  let next = content;
  if (where && place !== 'leave-out') {
    if (place === 'make' && where.length > MOST)
      throw invalid('where', `“${where.slice(0, 40)}…” is too long for a venue’s name; use “Edit first”.`);
    const id = place === 'make' ? (await saveVenue(tx, null, { ...BLANK_VENUE, name: where }, by)).id : place;
    next = { ...next, venueIds: [id] };
  }
  if (who && people !== 'leave-out') {
    if (people === 'make' && who.length > MOST)
      throw invalid('who', `“${who.slice(0, 40)}…” is too long for an organizer’s name; use “Edit first”.`);
    const id = people === 'make' ? (await saveOrganizer(tx, null, { ...BLANK_ORGANIZER, name: who }, by)).id : people;
    next = { ...next, organizerIds: [id] };
  }
  return next;
}

/** A sender's place and people that the site does not know: made, put to those it knows, or left out, as whoever decides says. */
import { z } from 'zod';
import type { ListingContent } from '@/core/listing/content';
import { likeNames } from '@/core/match/names';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { invalid } from '../problem';
import { BLANK_ORGANIZER, saveOrganizer } from '../organizers/write';
import type { ReferenceData } from '../reference/read';
import { BLANK_VENUE } from '../venues/input';
import { saveVenue } from '../venues/write';
import { serverWords } from '@/words/desk';

const w = serverWords.moderationSentPlaces;

/** `make`, `leave-out`, or the id of the one that is meant. */
const choice = z.union([z.literal('make'), z.literal('leave-out'), z.uuid()]);
/** What an editor decides about places that a sender named. */
export const newPlacesInput = z.object({ where: choice.default('make'), who: choice.default('make') });
/** The decision, checked. */
export type NewPlaces = z.infer<typeof newPlacesInput>;

/** The places as the sender named them. */
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
  reference: ReferenceData,
): { where: { id: string; name: string }[]; who: { id: string; name: string }[] } {
  const likely = <T extends { id: string; name: string }>(name: string, all: readonly T[]): { id: string; name: string }[] =>
    name
      ? likeNames(name, all)
          .slice(0, 3)
          .map(({ item }) => ({ id: item.id, name: item.name }))
      : [];
  return { where: likely(where, reference.venues), who: likely(who, reference.organizers) };
}

/** Names have at most so many characters; what is longer stays in the sender's words only. */
const MOST = 120;

/** What a sender's words become: an id, or nothing where there are none or they are left out. */
async function becomes(
  name: string,
  chosen: string,
  { field, what, make }: { field: 'where' | 'who'; what: string; make: () => Promise<{ id: string }> },
): Promise<string[]> {
  if (!name || chosen === 'leave-out') return [];
  if (chosen !== 'make') return [chosen];
  if (name.length > MOST) throw invalid(field, w.isTooLongFor({ name: name.slice(0, 40), what }));
  return [(await make()).id];
}

/**
 * The content with the sender's place and people in it, made where they are new. The very content when nothing was open.
 * @throws Problem at `where` or `who` when the words cannot be a name
 */
export async function placesMade(
  tx: Db,
  content: ListingContent,
  said: SaidPlaces,
  choices: NewPlaces = { where: 'make', who: 'make' },
  by: Actor,
): Promise<ListingContent> {
  const { where, who } = openPlaces(content, said);
  const venueIds = await becomes(where, choices.where, {
    ...{ field: 'where' as const, what: w.aVenues() },
    make: () => saveVenue(tx, null, { ...BLANK_VENUE, name: where }, by),
  });
  const organizerIds = await becomes(who, choices.who, {
    ...{ field: 'who' as const, what: w.anOrganizers() },
    make: () => saveOrganizer(tx, null, { ...BLANK_ORGANIZER, name: who }, by),
  });
  if (!venueIds.length && !organizerIds.length) return content;
  return { ...content, ...(venueIds.length ? { venueIds } : {}), ...(organizerIds.length ? { organizerIds } : {}) };
}

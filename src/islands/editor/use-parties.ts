/** The venues and organizers that a listing can have: those known, and those made while it is written. */
import { useState } from 'react';
import { defaultsOf } from '@/core/listing/defaults';
import type { ListingContent } from '@/core/listing/content';
import type { EditorStart, OrganizerChoice, VenueChoice } from '@/core/listing/editor';
import type { Made } from './MakeDialog';
import type { Listing } from './use-listing';

export type PartyKind = 'venues' | 'organizers';

export interface Parties {
  venues: VenueChoice[];
  organizers: OrganizerChoice[];
  /** what is being made, with the name that was typed */
  making: { kind: PartyKind; name: string } | null;
  setMaking: (making: Parties['making']) => void;
  takeOrganizers: (ids: string[]) => void;
  /** takes one that is known instead of making it */
  take: (kind: PartyKind, id: string) => void;
  /** adds the one that was made, to what can be chosen and to the listing */
  add: (kind: PartyKind, made: Made, more: string) => void;
}

const withId = (ids: readonly string[], id: string): string[] => [...new Set([...ids, id])];

export function useParties(start: EditorStart, { content, setContent, server }: Listing): Parties {
  const [venues, setVenues] = useState(start.venues);
  const [organizers, setOrganizers] = useState(start.organizers);
  const [making, setMaking] = useState<Parties['making']>(null);
  /** A new listing begins with what its first organizer usually has; what was chosen already stays. */
  const takeOrganizers = (organizerIds: string[]): void => {
    const first = organizers.find((o) => o.id === organizerIds[0]);
    setContent((c): ListingContent => ({ ...c, organizerIds, ...(server.id ? {} : defaultsOf(c, first)) }));
  };
  const take = (kind: PartyKind, id: string): void => {
    if (kind === 'venues') setContent((c) => ({ ...c, venueIds: withId(c.venueIds, id) }));
    else takeOrganizers(withId(content.organizerIds, id));
    setMaking(null);
  };
  const add = (kind: PartyKind, made: Made, more: string): void => {
    if (kind === 'venues') {
      const facts = { setUp: 0, capacity: null, hours: null, access: false, placed: made.placed === true, binned: false };
      setVenues([...venues, { ...made, more, ...facts }]);
      setContent((c) => ({ ...c, venueIds: [...c.venueIds, made.id] }));
    } else {
      const contact = { name: '', phone: '', mail: '' };
      setOrganizers([...organizers, { ...made, more: '', categoryId: null, contact, binned: false }]);
      setContent((c) => ({ ...c, organizerIds: [...c.organizerIds, made.id] }));
    }
    setMaking(null);
  };
  return { venues, organizers, making, setMaking, takeOrganizers, take, add };
}

/** What a publisher lets readers see of venues and organizers beside their names, addresses and dates. */

/** What may be shown of a venue, in the order in which a coordinator chooses. */
export const VENUE_FACTS = ['picture', 'chart', 'directions', 'hours', 'phone', 'mail', 'website', 'capacity'] as const;
/** What may be shown of an organizer. */
export const ORGANIZER_FACTS = ['picture', 'text', 'phone', 'mail', 'website', 'profiles'] as const;
/** One of {@link VENUE_FACTS}. */
export type VenueFact = (typeof VENUE_FACTS)[number];
/** One of {@link ORGANIZER_FACTS}. */
export type OrganizerFact = (typeof ORGANIZER_FACTS)[number];

/** What is shown of both. */
export interface ShownFacts {
  venueShows: readonly VenueFact[];
  organizerShows: readonly OrganizerFact[];
}

/** The facts of a venue that may be left out, as readers' pages, feeds and data have them. */
export interface VenueFacts {
  pictureId: string | null;
  hours: unknown;
  phone: string;
  mail: string;
  website: string;
  capacity: number | null;
}

/** A venue of which only what is shown is told; its chart and the way there are drawn by pages, which ask themselves. */
export function shownVenue<V extends VenueFacts>(venue: V, shows: readonly VenueFact[]): V {
  const without = (fact: VenueFact, empty: Partial<VenueFacts>): Partial<VenueFacts> => (shows.includes(fact) ? {} : empty);
  return {
    ...venue,
    ...without('picture', { pictureId: null }),
    ...without('hours', { hours: null }),
    ...without('phone', { phone: '' }),
    ...without('mail', { mail: '' }),
    ...without('website', { website: '' }),
    ...without('capacity', { capacity: null }),
  };
}

/** The facts of an organizer that may be left out. */
export interface OrganizerFacts {
  pictureId: string | null;
  text: string;
  phone: string;
  mail: string;
  website: string;
  profiles: { list: unknown[] };
}

/** An organizer of whom only what is shown is told. */
export function shownOrganizer<O extends OrganizerFacts>(organizer: O, shows: readonly OrganizerFact[]): O {
  const without = (fact: OrganizerFact, empty: Partial<OrganizerFacts>): Partial<OrganizerFacts> => (shows.includes(fact) ? {} : empty);
  return {
    ...organizer,
    ...without('picture', { pictureId: null }),
    ...without('text', { text: '' }),
    ...without('phone', { phone: '' }),
    ...without('mail', { mail: '' }),
    ...without('website', { website: '' }),
    ...without('profiles', { profiles: { ...organizer.profiles, list: [] } }),
  };
}

/** What the listing's editor begins with: plain values that the server gives and the island reads. */
import type { TranslatedLanguage } from './content';
import type { Framing } from '../picture/crop';
import type { Style } from '../phrase/format';
import type { ListPictures } from '../validation/picture-checks';
import type { OpeningHours } from '../venue/hours';
import type { Times } from './publication-times';
import type { Contact, ListingContent, Stage } from './content';

/** Something that can be chosen, with what tells it apart from its like. */
export interface Choice {
  id: string;
  name: string;
  /** what else tells it apart: a town, a parent category */
  more: string;
}

/** A venue, with what Proof and the rail must know of it. */
export interface VenueChoice extends Choice {
  /** minutes that have to be free between two dates */
  setUp: number;
  capacity: number | null;
  hours: OpeningHours | null;
  /** is anything said about how people get in? */
  access: boolean;
  /** has it a position? */
  placed: boolean;
  binned: boolean;
}

/** A picture as forms show it, with what its crops follow from. */
export interface PictureChoice extends Framing {
  id: string;
  version: number;
  /** the file's name */
  name: string;
  alt: string;
  credit: string;
  /** of its width, how much would hold all that is in it */
  detail: number;
}

/** An organizer, with what a new listing of theirs begins with. */
export interface OrganizerChoice extends Choice {
  categoryId: string | null;
  contact: Contact;
  binned: boolean;
}

/** Another listing's date in a venue, by the site's clock, as short as it is sent. */
export type BookingRow = [
  title: string,
  listingId: string,
  startDay: number,
  startMinute: number | null,
  endDay: number | null,
  endMinute: number | null,
  venueId: string,
];

/** What the editor of a listing begins with. */
export interface EditorStart {
  id: string | null;
  revision: number;
  stage: Stage;
  edited: boolean;
  times: Times;
  /** why it did not go out when it should have; empty = it did, or was not to */
  scheduleWrong: string;
  slug: string;
  oldSlugs: string[];
  content: ListingContent;
  /** what this person typed and did not save, on whatever machine */
  kept: { content: ListingContent; revision: number; at: number } | null;
  /** those that its content and what was kept show */
  pictures: PictureChoice[];
  venues: VenueChoice[];
  organizers: OrganizerChoice[];
  /** `picture`: has one that stands in for listings without */
  categories: (Choice & { mark: string; child: boolean; picture: boolean })[];
  tags: Choice[];
  fallback: string;
  site: {
    zone: string;
    zones: string[];
    today: number;
    minute: number;
    horizon: number;
    style: Style;
    listPictures: ListPictures;
    currency: string;
    /** where the sun rises and sets, in degrees; null = nobody has said where the site is */
    sunAt: { lat: number; lng: number } | null;
    firstWeekday: number;
    /** the language that listings may be translated into; empty = none */
    secondLanguage: TranslatedLanguage | '';
  };
  mayPublish: boolean;
  mayMake: boolean;
  userId: string;
  /** what happened lately, said: `what` and `at` as an editor reads them, by the site's clock */
  history: { revision: number; what: string; byName: string; at: string }[];
  submission: { sender: string; message: string; where: string; who: string } | null;
}

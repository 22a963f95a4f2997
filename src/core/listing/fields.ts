/**
 * The fields of a listing, each declared once: what it is called, what it holds and how much, what it is when nothing is said, where it is entered, who
 * sees it, and how it goes with another listing. Checks at the door, the form's fields, files, comparing, merging and versions read this.
 * Lengths are in characters of the stored text (HTML included), numbers of ids in ids.
 */
import type { Column } from '../exchange/csv-columns';
import type { EventStatus } from '../recurrence/model';
import type { ValidationField } from '../validation/note';
import { type Attendance, type Call, CONTENT_FORMAT, type ListingContent, type Visibility } from './content';

/** The name of a field of a listing. */
export type ContentField = Exclude<keyof ListingContent, 'format'>;

/** What a field can hold. */
export type FieldType<V> =
  /** text on one line, its spaces closed up; `rows` where it is entered in a taller field */
  | { is: 'line'; most: number; rows?: number }
  | { is: 'html'; most: number }
  /** an address that can be followed */
  | { is: 'web'; most: number }
  /** one of a few, with the word for each */
  | { is: 'choice'; words: Record<V & string, string> }
  | { is: 'flag' }
  | { is: 'number'; least: number; most: number }
  | { is: 'day' }
  /** what it points to, in order */
  | { is: 'ids'; most: number }
  | { is: 'id' }
  /** a shape of its own, with a check of its own (`server/listings/input.ts`) and words of its own (`say-field.ts`) */
  | { is: 'own' };

/** What is declared of a field. */
export interface Field<V> {
  /** as an editor reads it */
  label: string;
  /** as a sentence about it begins: "The title has at most 160 characters" */
  subject?: string;
  /** beside it, where it is entered */
  hint?: string;
  type: FieldType<V>;
  empty: V;
  /** the form's field where it is put right; nothing for what cannot be wrong */
  entered?: ValidationField;
  /** the columns of tables that hold it; nothing: tables leave it out, and say so */
  columns?: readonly Column[];
  /** editors alone know it */
  team?: true;
  /** taken over from the other listing of the same event when two are merged and this one says nothing */
  fillsGaps?: true;
}

const STATUSES: Record<EventStatus, string> = {
  'going-ahead': 'Going ahead',
  postponed: 'Postponed',
  'moved-online': 'Moved online',
  rescheduled: 'Rescheduled',
  cancelled: 'Cancelled',
};
const PLACES: Record<Attendance, string> = { 'in-person': 'In person', online: 'Online', both: 'In person and online' };
const SIGHT: Record<Visibility, string> = { public: 'Public', 'address-only': 'By address only' };

const CALL_WORDS: Record<Call, string> = {
  more: 'Find out more',
  book: 'Book a place',
  tickets: 'Buy tickets',
  register: 'Sign up',
  help: 'Offer to help',
  donate: 'Donate',
};

/** In the order in which they are compared and said. */
export const FIELDS = {
  title: { label: 'Title', subject: 'The title', type: { is: 'line', most: 160 }, empty: '', entered: 'title', columns: ['title'] },
  shortTitle: {
    label: 'Short title',
    subject: 'The short title',
    type: { is: 'line', most: 60 },
    empty: '',
    entered: 'shortTitle',
    columns: ['short-title'],
  },
  summary: {
    label: 'Summary',
    subject: 'The summary',
    type: { is: 'line', most: 400, rows: 2 },
    empty: '',
    entered: 'summary',
    fillsGaps: true,
    columns: ['summary'],
  },
  text: {
    label: 'Text',
    subject: 'The text',
    type: { is: 'html', most: 60_000 },
    empty: '',
    entered: 'text',
    fillsGaps: true,
    columns: ['text'],
  },
  recurrence: {
    label: 'When',
    type: { is: 'own' },
    empty: null,
    entered: 'when',
    fillsGaps: true,
    columns: ['when', 'start-date', 'start-time', 'end-date', 'end-time', 'repeats', 'zone'],
  },
  whenWords: {
    label: 'When, in words',
    subject: 'When, in words,',
    type: { is: 'line', most: 2_000 },
    empty: '',
    entered: 'when',
    team: true,
    columns: ['when'],
  },
  changes: { label: 'Changed dates', type: { is: 'own' }, empty: [], entered: 'when', columns: ['changes'] },
  eventStatus: { label: 'Status', type: { is: 'choice', words: STATUSES }, empty: 'going-ahead', columns: ['eventStatus'] },
  eventStatusNote: { label: 'Why, for readers', subject: 'The note', type: { is: 'line', most: 300 }, empty: '' },
  attendance: { label: 'Kind of place', type: { is: 'choice', words: PLACES }, empty: 'in-person', entered: 'venues', columns: ['online'] },
  onlineAddress: {
    label: 'Online address',
    subject: 'The online address',
    hint: 'www.shore.example/room will do',
    type: { is: 'web', most: 500 },
    empty: '',
    entered: 'online',
    fillsGaps: true,
    columns: ['online'],
  },
  venueIds: { label: 'Venues', type: { is: 'ids', most: 10 }, empty: [], entered: 'venues', fillsGaps: true, columns: ['venue'] },
  organizerIds: {
    label: 'Organizers',
    type: { is: 'ids', most: 10 },
    empty: [],
    entered: 'organizers',
    fillsGaps: true,
    columns: ['organizer'],
  },
  categoryIds: {
    label: 'Categories',
    type: { is: 'ids', most: 10 },
    empty: [],
    entered: 'categories',
    fillsGaps: true,
    columns: ['categories'],
  },
  tagIds: { label: 'Tags', type: { is: 'ids', most: 30 }, empty: [], entered: 'categories', fillsGaps: true },
  pictureId: { label: 'Picture', type: { is: 'id' }, empty: null, entered: 'picture', fillsGaps: true },
  galleryIds: { label: 'More pictures', type: { is: 'ids', most: 24 }, empty: [], entered: 'picture', fillsGaps: true },
  cost: { label: 'Cost', type: { is: 'own' }, empty: { kind: 'unsaid' }, entered: 'cost', fillsGaps: true, columns: ['cost'] },
  website: {
    label: 'Website',
    subject: 'The website',
    hint: 'www.shore.example will do',
    type: { is: 'web', most: 500 },
    empty: '',
    entered: 'website',
    fillsGaps: true,
    columns: ['website'],
  },
  callAddress: {
    label: 'Button leads to',
    subject: 'The address of the button',
    hint: 'Where people book, buy tickets or sign up; no button if you leave it empty',
    type: { is: 'web', most: 500 },
    empty: '',
    entered: 'call',
    fillsGaps: true,
  },
  callKind: { label: 'Button says', type: { is: 'choice', words: CALL_WORDS }, empty: 'more', entered: 'call' },
  contact: {
    label: 'Contact',
    type: { is: 'own' },
    empty: { name: '', phone: '', mail: '' },
    entered: 'contact',
    fillsGaps: true,
    columns: ['contact', 'phone', 'mail'],
  },
  access: {
    label: 'Access',
    hint: 'Steps, hearing loop, parking, what to bring',
    type: { is: 'line', most: 600, rows: 2 },
    empty: '',
    entered: 'access',
    fillsGaps: true,
    columns: ['access'],
  },
  expected: {
    label: 'People expected',
    subject: 'How many are expected',
    hint: 'Compared with what its venue holds',
    type: { is: 'number', least: 1, most: 1_000_000 },
    empty: null,
    entered: 'expected',
    team: true,
    fillsGaps: true,
  },
  headline: { label: 'Headline', type: { is: 'flag' }, empty: false },
  onTopUntil: { label: 'On top until', type: { is: 'day' }, empty: null },
  visibility: { label: 'Visibility', type: { is: 'choice', words: SIGHT }, empty: 'public' },
  translations: { label: 'In French', type: { is: 'own' }, empty: undefined, entered: 'text', fillsGaps: true },
} as const satisfies { [Name in ContentField]: Field<ListingContent[Name]> };

/** Fields whose type is one of these. */
export type FieldOf<Is extends FieldType<unknown>['is']> = {
  [Name in ContentField]: (typeof FIELDS)[Name]['type']['is'] extends Is ? Name : never;
}[ContentField];

/** The names of all fields, in the order in which they are compared. */
export const FIELD_NAMES = Object.keys(FIELDS) as ContentField[];

/** A field's declaration, whichever it is. */
export const fieldOf = (name: ContentField): Field<unknown> => FIELDS[name] as Field<unknown>;

/** Facts that stand in a page's column of facts as they are: their heading there is in the catalogue under their name. */
export const FACTS = ['access', 'website'] as const satisfies readonly FieldOf<'line' | 'web'>[];

/** What tables of listings leave out, as an editor reads it. */
export const NOT_IN_TABLES: readonly string[] = FIELD_NAMES.filter((name) => !fieldOf(name).columns).map((name) => fieldOf(name).label);

/** A content without what editors alone know. */
export function forReaders(content: ListingContent): ListingContent {
  const hidden = FIELD_NAMES.filter((name) => fieldOf(name).team).map((name) => [name, fieldOf(name).empty]);
  return { ...content, ...Object.fromEntries(hidden) };
}

/** The choices of a field, each with its word. */
export function optionsOf<Name extends FieldOf<'choice'>>(name: Name): [ListingContent[Name], string][] {
  return Object.entries(FIELDS[name].type.words) as [ListingContent[Name], string][];
}

/** How much the longest text of a field holds, where it is text. */
export const mostOf = (name: FieldOf<'line' | 'web' | 'html'>): number => FIELDS[name].type.most;

/** Parts of fields that have a shape of their own: how much their texts hold. */
export const MOST_IN = { costWords: 120, amount: 20, contactName: 120, phone: 60, mail: 200 } as const;

/** A content of which nothing is said. Each is new: what it holds may be changed. */
export function emptyContent(): ListingContent {
  const empty = FIELD_NAMES.map((name) => [name, fieldOf(name).empty]).filter(([, value]) => value !== undefined);
  return { format: CONTENT_FORMAT, ...structuredClone(Object.fromEntries(empty)) };
}

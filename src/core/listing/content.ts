/**
 * What an editor writes of a listing: one JSON value with a format number, kept twice (working and published copy) and
 * in every version. Ids point to venues, organizers, categories and pictures, in the order they are shown.
 */
import { picturesInText } from '../picture/picture-url';
import { LANGUAGE_TAGS, type Language } from '../phrase/language';
import type { EventStatus } from '../recurrence/model';
import { type StoredChange, type StoredRecurrence, upgradeRecurrence } from '../recurrence/stored';

/**
 * Format 2 added how many are expected, tags, a gallery and how long it stays on top; format 3 the words for when that are still open; format 4
 * calls the status of an event what schema.org calls it; format 5 added what a page calls its readers to do.
 */
export const CONTENT_FORMAT = 5;

/** How one takes part. */
export const ATTENDANCE = ['in-person', 'online', 'both'] as const;
/** Who comes across a published listing: everybody, or who has its address. */
export const VISIBILITIES = ['public', 'address-only'] as const;
/** The stages of a listing, in the order in which most go through them. */
export const STAGES = ['draft', 'in-review', 'scheduled', 'published', 'withdrawn', 'binned'] as const;
/** What a page may call its readers to do, with a button that leads there. */
export const CALLS = ['more', 'book', 'tickets', 'register', 'help', 'donate'] as const;
/** One of {@link CALLS}. */
export type Call = (typeof CALLS)[number];
/** One of {@link ATTENDANCE}. */
export type Attendance = (typeof ATTENDANCE)[number];
/** One of {@link VISIBILITIES}. */
export type Visibility = (typeof VISIBILITIES)[number];
/** One of {@link STAGES}. */
export type Stage = (typeof STAGES)[number];
/** Each stage as an editor reads it. */
export const STAGE_WORDS: Record<Stage, string> = {
  draft: 'Draft',
  'in-review': 'In review',
  scheduled: 'Scheduled',
  published: 'Published',
  withdrawn: 'Withdrawn',
  binned: 'In the bin',
};

/** What it costs: nothing said, nothing, an amount in a currency (ISO 4217), or words. */
export type Cost =
  | { kind: 'unsaid' }
  | { kind: 'free' }
  /** amount in the currency's unit, as typed: "8", "12.50" */
  | { kind: 'amount'; amount: string; currency: string }
  | { kind: 'words'; words: string };

/** Whom to ask; an empty part is not said. */
export interface Contact {
  name: string;
  phone: string;
  mail: string;
}

/** Languages that a listing may be translated into. */
export const TRANSLATED = ['fr'] as const satisfies readonly Language[];
/** One of {@link TRANSLATED}. */
export type TranslatedLanguage = (typeof TRANSLATED)[number];

/** A listing's words in a second language; what is empty is read as it was written. */
export interface Translation {
  title: string;
  shortTitle: string;
  summary: string;
  /** sanitised HTML */
  text: string;
}

/** A listing's words by language; a language that is not there has none. */
export type Translations = Partial<Record<TranslatedLanguage, Translation>>;

/** All that is written of a listing; each field is declared in `fields.ts`. */
export interface ListingContent {
  format: typeof CONTENT_FORMAT;
  title: string;
  shortTitle: string;
  summary: string;
  /** sanitised HTML */
  text: string;
  recurrence: StoredRecurrence | null;
  /** words for when that were not understood, or ask something: kept until they are mended or taken out, and nothing is published meanwhile */
  whenWords: string;
  changes: StoredChange[];
  eventStatus: EventStatus;
  /** why it is not going ahead as planned */
  eventStatusNote: string;
  attendance: Attendance;
  onlineAddress: string;
  venueIds: string[];
  organizerIds: string[];
  categoryIds: string[];
  pictureId: string | null;
  cost: Cost;
  website: string;
  /** where the button of its page leads; empty = it has none */
  callAddress: string;
  callKind: Call;
  contact: Contact;
  access: string;
  headline: boolean;
  visibility: Visibility;
  /** how many people are expected, for the room that it needs; null = nothing is said */
  expected: number | null;
  tagIds: string[];
  /** pictures beside the cover, in order */
  galleryIds: string[];
  /** the last day on which it stands on top of lists, `2027-04-01`; null = it does not */
  onTopUntil: string | null;
  /** its words in other languages; absent = there are none */
  translations?: Translations;
}

type Raw = Record<string, unknown>;

/** A content of an earlier format as one of today's. The tables' own rows were brought forward by migrations; files may still hold the old. */
export function upgradeContent(raw: Raw): Raw {
  const second = raw.format === 1 ? { ...raw, format: 2, expected: null, tagIds: [], galleryIds: [], onTopUntil: null } : raw;
  const third = second.format === 2 ? { ...second, format: 3, whenWords: '' } : second;
  const fourth = third.format === 3 ? { ...upgradeStatus(third), format: 4 } : third;
  return fourth.format === 4 ? { ...fourth, format: CONTENT_FORMAT, callAddress: '', callKind: 'more' } : fourth;
}

/** What had names of its own before format 4. Fields that a content does not have stay absent. */
export function upgradeStatus({ standing, standingNote, changes, recurrence, ...same }: Raw): Raw {
  return {
    ...same,
    ...(standing === undefined ? {} : { eventStatus: standing }),
    ...(standingNote === undefined ? {} : { eventStatusNote: standingNote }),
    ...(changes === undefined ? {} : { changes: Array.isArray(changes) ? changes.map(upgradeChange) : changes }),
    ...(recurrence === undefined ? {} : { recurrence: upgradeRecurrence(recurrence) }),
  };
}

function upgradeChange(raw: unknown): unknown {
  if (typeof raw !== 'object' || raw === null || !('standing' in raw)) return raw;
  const { standing, ...same } = raw;
  return { ...same, eventStatus: standing };
}

/** Every venue that a content names: its own, then those that single dates go to, each once. */
export function venuesOf(content: Pick<ListingContent, 'venueIds' | 'changes'>): string[] {
  return [...new Set([...content.venueIds, ...content.changes.flatMap((change) => change.venueId ?? [])])];
}

/** Its text in every language, for what is looked for in all of them. */
export function allTexts({ text, translations }: Pick<ListingContent, 'text' | 'translations'>): string {
  return [text, ...Object.values(translations ?? {}).map((words) => words.text)].join('');
}

/** Every picture that a content shows, each once: its cover, its gallery, those in its texts. */
export function picturesOf(content: Pick<ListingContent, 'pictureId' | 'galleryIds' | 'text' | 'translations'>): string[] {
  const { pictureId, galleryIds } = content;
  return [...new Set([...(pictureId ? [pictureId] : []), ...galleryIds, ...picturesInText(allTexts(content))])];
}

/** `free`, `$8`, the words, or nothing. Currency codes are ISO 4217; the symbol is the locale's narrow one. */
export function sayCost(cost: Cost, language: Language = 'en'): string {
  if (cost.kind === 'free') return language === 'fr' ? 'entrée libre' : 'free';
  if (cost.kind === 'words') return cost.words;
  if (cost.kind === 'unsaid') return '';
  const amount = Number(cost.amount);
  return new Intl.NumberFormat(LANGUAGE_TAGS[language], {
    style: 'currency',
    currency: cost.currency,
    currencyDisplay: 'narrowSymbol',
    minimumFractionDigits: Number.isInteger(amount) ? 0 : 2,
  }).format(amount);
}

/** Lists and search engines show about this much of a summary, in characters. */
export const SUMMARY_SHOWN = { list: 140, search: 155 } as const;
/** About what one line of the month sheet holds at the usual width, in characters. */
export const SHORT_TITLE_FITS = 18;

/** What readers see of a listing: its content spread into the columns that views ask for. */
import { parseIsoDay } from '@/core/day/day';
import { effectiveSummary, listingVenues } from '@/core/dates/effective-date';
import type { ListingContent } from '@/core/listing/content';
import type { Translation, Translations } from '@/core/listing/content';
import { fold, plainText } from '@/core/text/text';
import { shownZone } from '../dates/date-index';
import type { listing, published } from '../db/schema';

/** Where readers go: nowhere while it is online. */
function publishedVenues(content: ListingContent): { venueId: string | null; venueIds: string[] } {
  const all = listingVenues(content);
  return { venueId: all[0] ?? null, venueIds: all };
}

/** What lists show of translations: their texts are asked for with the content. */
function titlesOf({ translations }: ListingContent): Translations | null {
  const all = Object.entries(translations ?? {}).map(([language, words]): [string, Translation] => {
    const summary = effectiveSummary(words);
    // That there is a text is what decides whether the summary is its own.
    return [language, { ...words, summary, text: '' }];
  });
  return all.length ? (Object.fromEntries(all) as Translations) : null;
}

const translatedWords = ({ translations }: ListingContent): string[] =>
  Object.values(translations ?? {}).flatMap(({ title, shortTitle, summary, text }) => [
    title,
    shortTitle,
    summary,
    plainText(text).slice(0, 1000),
  ]);

interface Publication {
  sequence: number;
  publishedAt: Date;
  at: Date;
  /** the category of what has none */
  fallback: string;
}

/** What readers see of a content, spread into the columns that views ask for. */
export function publishedValues(
  row: Pick<typeof listing.$inferSelect, 'id' | 'slug'>,
  content: ListingContent,
  publication: Publication,
): typeof published.$inferInsert {
  const text = plainText(content.text);
  return {
    listingId: row.id,
    slug: row.slug,
    visibility: content.visibility,
    title: content.title,
    shortTitle: content.shortTitle,
    summary: effectiveSummary(content),
    eventStatus: content.eventStatus,
    attendance: content.attendance,
    free: content.cost.kind === 'free',
    cost: content.cost,
    contact: content.contact,
    headline: content.headline,
    onTopUntil: content.onTopUntil === null ? null : (parseIsoDay(content.onTopUntil) ?? null),
    categoryId: content.categoryIds[0] ?? publication.fallback,
    ...publishedVenues(content),
    zone: shownZone(content, ''),
    pictureId: content.pictureId,
    translations: titlesOf(content),
    search: fold([content.title, content.shortTitle, content.summary, ...translatedWords(content), text].join(' ')).slice(0, 4000),
    content,
    sequence: publication.sequence,
    publishedAt: publication.publishedAt,
    changedAt: publication.at,
  };
}

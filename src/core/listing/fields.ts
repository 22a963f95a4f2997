/** The fields of a listing, named and said as an editor reads them: for comparing versions, and what two people saved. */
import { type Style, sayDay } from '../phrase/format';
import { parseIsoDay } from '../day/day';
import { sayChange, sayRecurrence } from '../phrase/say';
import { changesFromStored } from '../recurrence/stored';
import { plainText } from '../text/text';
import { type ListingContent, sayCost } from './content';
import { readRecurrence } from '../dates/repeat-choices';

export type ContentField = Exclude<keyof ListingContent, 'format'>;

export const FIELD_WORDS: Record<ContentField, string> = {
  title: 'Title',
  shortTitle: 'Short title',
  summary: 'Summary',
  text: 'Text',
  recurrence: 'When',
  whenWords: 'When, in words',
  changes: 'Changed dates',
  eventStatus: 'Status',
  eventStatusNote: 'Why',
  attendance: 'Kind of place',
  onlineAddress: 'Online address',
  venueIds: 'Venue',
  organizerIds: 'Organizer',
  categoryIds: 'Categories',
  tagIds: 'Tags',
  pictureId: 'Picture',
  galleryIds: 'More pictures',
  cost: 'Cost',
  website: 'Website',
  contact: 'Contact',
  access: 'Access',
  expected: 'Expected',
  headline: 'Headline',
  onTopUntil: 'On top until',
  visibility: 'Visibility',
  translations: 'In French',
};

/** Names of what ids point to; undefined for what was removed. */
export type NameOf = (id: string) => string | undefined;

/** A field's value in words; empty when there is none. */
export function sayField(field: ContentField, content: ListingContent, nameOf: NameOf, style: Style): string {
  const names = (ids: readonly string[]): string => ids.map((id) => nameOf(id) ?? 'removed').join(', ');
  switch (field) {
    case 'text':
      return plainText(content.text);
    case 'recurrence': {
      const recurrence = readRecurrence(content.recurrence);
      return recurrence ? sayRecurrence(recurrence, style) : '';
    }
    case 'changes':
      return sayChanges(content, style);
    case 'venueIds':
    case 'organizerIds':
    case 'categoryIds':
    case 'tagIds':
    case 'galleryIds':
      return names(content[field]);
    case 'pictureId':
      return content.pictureId ? names([content.pictureId]) : '';
    case 'cost':
      return sayCost(content.cost);
    case 'contact':
      return [content.contact.name, content.contact.phone, content.contact.mail].filter(Boolean).join(', ');
    case 'headline':
      return content.headline ? 'yes' : 'no';
    case 'expected':
      return content.expected === null ? '' : String(content.expected);
    case 'onTopUntil': {
      const day = parseIsoDay(content.onTopUntil ?? '');
      return day === undefined ? '' : sayDay(day, style, { year: true });
    }
    case 'translations':
      return Object.values(content.translations ?? {})
        .flatMap(({ title, shortTitle, summary, text }) => [title, shortTitle, summary, plainText(text)])
        .filter(Boolean)
        .join(' · ');
    case 'visibility':
      return content.visibility === 'address-only' ? 'by address only' : 'public';
    default:
      return content[field];
  }
}

function sayChanges(content: ListingContent, style: Style): string {
  try {
    return changesFromStored(content.changes)
      .map((change) => sayChange(change, style))
      .join('; ');
  } catch {
    return `${content.changes.length} changed`;
  }
}

/** What a sender changed in their form since it was shown to them, part by part: all that they left alone stays as editors made it. */
import { type SentPart, withParts } from '@/core/listing/sent';
import type { ListingContent } from '@/core/listing/content';
import type { EpochDay } from '@/core/day/day';
import type { ReferenceData } from '../reference/read';
import type { SiteSettings } from '../site/settings';
import { type Fields, type FormResult, readAddForm, typed } from './form';

/** The form's fields that make up each part. The picture is a file, and told apart by its being there. */
const FIELDS: Record<Exclude<SentPart, 'picture'>, readonly string[]> = {
  title: ['title'],
  when: ['when', 'day', 'starts', 'ends', 'lastDay', 'repeats', 'until'],
  where: ['where'],
  who: ['who'],
  kind: ['kind'],
  text: ['text'],
  cost: ['cost'],
  website: ['website'],
  contact: ['name', 'phone', 'showContact'],
};

/** What a sender changed after sending, part by part. */
export interface SenderChanges extends FormResult {
  /** the parts that the sender touched */
  parts: SentPart[];
}

/** What taking a sender's changes needs to know. */
export interface SenderChangesContext {
  /** the form as it was shown */
  shown: Fields;
  reference: ReferenceData;
  settings: SiteSettings;
  today: EpochDay;
}

/**
 * Reads a mended form against what was shown. `content` is `before` with the touched parts as they are typed now.
 * @throws Problem with every field that needs mending, for fields of touched parts only
 */
export function readSenderChanges(
  before: ListingContent,
  posted: Fields,
  { shown, reference, settings, today }: SenderChangesContext,
): SenderChanges {
  const parts = (Object.keys(FIELDS) as (keyof typeof FIELDS)[]).filter((part) =>
    FIELDS[part].some((name) => fieldValue(posted, name) !== fieldValue(shown, name)),
  );
  const read = readAddForm(posted, reference, settings, today);
  return { ...read, content: withParts(before, read.content, parts), parts };
}

function fieldValue(fields: Fields, name: string): string {
  const value = typed(fields[name]);
  // A preset that was never chosen is the same as nothing.
  return name === 'repeats' && value === 'never' ? '' : value;
}

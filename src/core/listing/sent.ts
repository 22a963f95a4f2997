/** The parts of an event that a sender's form speaks of: what a later change of theirs may touch, and nothing else. */
import { canonical } from '../text/canonical-json';
import type { ListingContent } from './content';

/** Each part with the fields of a content that it stands for. */
export const SENT_PARTS = {
  title: ['title'],
  when: ['recurrence'],
  where: ['venueIds'],
  who: ['organizerIds'],
  kind: ['categoryIds'],
  text: ['text'],
  cost: ['cost'],
  website: ['website'],
  picture: ['pictureId'],
  contact: ['contact'],
} as const satisfies Record<string, readonly (keyof ListingContent)[]>;
/** A part of the sender's form. */
export type SentPart = keyof typeof SENT_PARTS;

/** As they are named where an editor decides. */
export const PART_WORDS: Record<SentPart, string> = {
  title: 'Title',
  when: 'When',
  where: 'Where',
  who: 'Organizer',
  kind: 'Kind',
  text: 'Text',
  cost: 'Cost',
  website: 'Website',
  picture: 'Picture',
  contact: 'Contact',
};

/** Is this the name of a part of the sender's form? */
export const isSentPart = (name: string): name is SentPart => Object.hasOwn(SENT_PARTS, name);

/** A content with some parts as another has them; everything else stays. */
export function withParts(content: ListingContent, from: ListingContent, parts: readonly SentPart[]): ListingContent {
  const taken = parts.flatMap((part) => SENT_PARTS[part].map((field) => [field, from[field]] as const));
  return { ...content, ...Object.fromEntries(taken) };
}

/** The parts, of those given, in which two contents differ. */
export function differingParts(a: ListingContent, b: ListingContent, parts: readonly SentPart[]): SentPart[] {
  return parts.filter((part) => SENT_PARTS[part].some((field) => canonical(a[field]) !== canonical(b[field])));
}

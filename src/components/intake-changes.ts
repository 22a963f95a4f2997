/** One part of what a sender changed, as it stands and as they would have it, in words. */
import type { ListingContent } from '@/core/listing/content';
import { sayCost } from '@/core/listing/content';
import type { SentPart } from '@/core/listing/sent';
import type { Style } from '@/core/phrase/format';
import { sayRecurrence } from '@/core/phrase/say';
import { fromStored } from '@/core/recurrence/stored';
import { plainText, shorten } from '@/core/text/text';
import type { Proposal } from '@/server/db/schema';
import { type ReferenceData, namesOf } from '@/server/reference/read';
import { pagesWords } from '@/words/desk';

const w = pagesWords.intakeChanges;

interface ChangeContext {
  reference: ReferenceData;
  style: Style;
  /** the sender's words for place and people so far */
  said: { where: string; who: string };
}

/** A long text is shown by its beginning. */
const SHOWN = 400;

export function sayChange(
  part: SentPart,
  working: ListingContent,
  proposal: Proposal,
  context: ChangeContext,
): { now: string; theirs: string } {
  return { now: sayPart(part, working, context, context.said), theirs: sayPart(part, proposal.content, context, proposal.said) };
}

function sayPart(part: SentPart, content: ListingContent, { reference, style }: ChangeContext, said: Proposal['said']): string {
  switch (part) {
    case 'title':
      return content.title;
    case 'when':
      return content.recurrence ? sayRecurrence(fromStored(content.recurrence), style) : '';
    case 'where':
      return namesOf(content.venueIds, reference.venue) || said.where;
    case 'who':
      return namesOf(content.organizerIds, reference.organizer) || said.who;
    case 'kind':
      return namesOf(content.categoryIds, reference.category);
    case 'text':
      return shorten(plainText(content.text), SHOWN);
    case 'cost':
      return sayCost(content.cost);
    case 'website':
      return content.website;
    case 'picture':
      return content.pictureId ? w.aPicture() : '';
    case 'contact':
      return [content.contact.name, content.contact.phone, content.contact.mail].filter(Boolean).join(', ');
  }
}

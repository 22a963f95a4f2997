/** What the editor says once an action is done, or refused. Without React. */
import { siteAddress } from '@/client/site-root';
import { parseIsoDateTime } from '@/core/day/plain-date-time';
import type { Stage } from '@/core/listing/content';
import type { Times } from '@/core/listing/publication-times';
import { type Style, sayWhen } from '@/core/phrase/format';
import { editorWords } from '@/words/desk';

const w = editorWords.useListing;

/** What is done to a listing as a whole. */
export type Action = 'publish' | 'withdraw' | 'bin' | 'restore' | 'review' | 'slug' | 'times';

export interface Note {
  tone: 'good' | 'bad';
  text: string;
  link?: { href: string; text: string };
}

/** All that is wrong stands at its fields; the note says the first and how many more there are. */
export function sayRefusal(title: string, fields: number): string {
  return fields > 1 ? w.moreBelow({ title, n: fields - 1 }) : title;
}

/** So many dates are named one by one. */
const ENDED_NAMED = 3;

/** Which dates are no more, as a sentence; empty when all go on. */
export function sayEnded(ended: readonly string[], style: Style): string {
  if (!ended.length) return '';
  const named = ended.slice(0, ENDED_NAMED).flatMap((text) => {
    const start = parseIsoDateTime(text);
    return start ? [sayWhen(start, null, style)] : [];
  });
  const more = ended.length - named.length;
  return w.noLongerADate({ named: named.join('; '), more: more > 0 ? w.andMore({ more }) : '' });
}

/** Where a listing stands after an action. */
interface After {
  id: string | null;
  slug: string;
  stage: Stage;
  times: Times;
}

/** What was done, with the page to look at. `ended` is the sentence of dates that are no more. */
export function noteOf(action: Action, { id, slug, stage, times }: After, ended = ''): Note {
  // Readers have no page of what is not published.
  const page =
    stage === 'published'
      ? { href: siteAddress(`/what/${slug}`), text: w.seeThePage() }
      : { href: siteAddress(`/desk/listings/${id}/preview`), text: w.seeThePreview() };
  switch (action) {
    case 'publish':
      return { tone: 'good', text: w.published({ ended }), link: page };
    case 'times':
      return {
        tone: 'good',
        text: times.publishAt ? w.itGoesOutBy() : times.withdrawAt ? w.itComesDownBy() : w.itHasNoTimes(),
      };
    case 'withdraw':
      return { tone: 'good', text: w.withdrawnReadersNoLonger() };
    case 'bin':
      return { tone: 'good', text: w.inTheBin() };
    case 'restore':
      return { tone: 'good', text: w.backAsADraft() };
    case 'review':
      return { tone: 'good', text: w.sentForReviewAn() };
    case 'slug':
      return { tone: 'good', text: w.theWebAddressIs(), link: page };
  }
}

/** Rows of an entry as contents of listings. */
import type { ListingContent } from '../listing/content';
import { emptyContent } from '../listing/fields';
import { toStored } from '../recurrence/stored';
import { paragraphs } from '../text/text';
import type { ReadLine } from './read-line';

/** What a row makes, with the corrections that somebody chose over what was read. */
export function draftOf(
  row: Pick<ReadLine, 'title' | 'recurrence' | 'when' | 'problems' | 'venueId' | 'place' | 'organizerId' | 'categoryId' | 'cost'>,
): ListingContent {
  return {
    ...emptyContent(),
    title: row.title,
    // A place that is no venue stays in the words, until somebody makes it one.
    text: row.venueId || !row.place ? '' : paragraphs(`Where: ${row.place}`),
    recurrence: row.recurrence && toStored(row.recurrence),
    // What is asked stays asked until somebody answers it in the listing.
    whenWords: row.problems.length ? row.when : '',
    venueIds: row.venueId ? [row.venueId] : [],
    organizerIds: row.organizerId ? [row.organizerId] : [],
    categoryIds: row.categoryId ? [row.categoryId] : [],
    cost: row.cost,
  };
}

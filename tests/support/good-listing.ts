/** A listing with nothing amiss, which the tests of Proof spoil one field at a time. */

import { dayOf } from '../../src/core/day/day';
import type { ListingContent } from '../../src/core/listing/content';
import { emptyContent } from '../../src/core/listing/fields';
import { MIDDLE, NO_CROPS } from '../../src/core/picture/crop';
import type { PictureFacts } from '../../src/core/validation/picture-checks';
import type { StoredRecurrencePart } from '../../src/core/recurrence/stored';

/** The desk's today in these tests. */
export const TODAY = dayOf(2027, 3, 17);

/** A good picture, with what is different in it. */
export const aPicture = (part: Partial<PictureFacts> = {}): PictureFacts => ({
  ...{ alt: 'A red sun', width: 1600, height: 900, detail: 1 },
  focus: MIDDLE,
  crops: NO_CROPS,
  ...part,
});

/** What Proof is told of the site and of a good picture. */
export const SITE = {
  today: TODAY,
  horizon: TODAY + 1095,
  zone: 'America/Halifax',
  style: { date: 'day-month', hours: '24' } as const,
  picture: () => aPicture(),
};

/** One evening, Tuesday, 23 March 2027, from 19:00 to 21:00, with what is different in its part or beside it. */
export const when = (part: Partial<StoredRecurrencePart> = {}, rest = {}): ListingContent['recurrence'] => ({
  format: 3,
  zone: SITE.zone,
  parts: [{ start: '2027-03-23T19:00', length: { days: 0, minute: 1260 }, rule: null, limit: { kind: 'open' }, ...part }],
  exdates: [],
  breaks: [],
  ...rest,
});

export const good: ListingContent = {
  ...emptyContent(),
  title: 'Harbour Choir',
  summary: 'Forty voices.',
  text: '<p>We sing.</p>',
  categoryIds: ['c'],
  venueIds: ['v'],
  organizerIds: ['o'],
  pictureId: 'p',
  cost: { kind: 'free' },
  recurrence: when(),
};

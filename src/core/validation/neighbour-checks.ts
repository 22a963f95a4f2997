/** Proof against everything else: who else needs the place or the people, what may be the same event, what a copy still needs. */
import type { EpochDay } from '../day/day';
import type { Booking } from '../dates/clashes';
import { type Style, sayDay, sayList, sayTime } from '../phrase/format';
import type { Because } from '../match/lookalike';
import type { Occurrence } from '../recurrence/model';
import { asWarning, type ValidationNote, asError } from './note';
import { says } from './saying';

/** A listing that may be the same event. */
export interface Lookalike {
  listingId: string;
  title: string;
  /** 0 to 1 */
  likeness: number;
  because: Because;
}

/** Dates that another listing needs too, with the first of ours that it meets. */
export interface Clash {
  booking: Pick<Booking, 'listingId' | 'title'>;
  day: EpochDay;
  minute: number | null;
  count: number;
}

/** What stands around a listing: clashes, lookalikes, its copies. */
export interface AroundContext {
  style: Style;
  venueClashes?: readonly Clash[] | undefined;
  organizerClashes?: readonly (Clash & { organizer: string })[] | undefined;
  lookalikes?: readonly Lookalike[] | undefined;
  /** other listings whose title is the same, word for word */
  sameTitle?: readonly { listingId: string; title: string }[] | undefined;
  holidays?: ReadonlyMap<EpochDay, readonly string[]> | undefined;
  /** what a copy still has to be looked at: parts of it that were not touched since */
  unlooked?: readonly ('title' | 'when')[] | undefined;
  /** a link of a copy that leads to the page of its original */
  backLink?: { link: string; field: 'text' | 'website'; title: string } | undefined;
}

/** What runs into others: clashes, lookalikes, holidays, copies that nobody looked at. */
export function aroundNotes(coming: readonly Occurrence[], context: AroundContext): ValidationNote[] {
  const { style } = context;
  const notes: ValidationNote[] = [];
  const at = ({ day, minute }: Clash): string =>
    `${sayDay(day, style, { weekday: 'short', month: 'short' })}${minute === null ? '' : ` ${sayTime(minute, style)}`}`;
  for (const clash of context.venueClashes ?? [])
    notes.push(
      asWarning('venue-clash', 'venues', says('venueClash', { title: clash.booking.title, at: at(clash), more: clash.count - 1 }), {
        subject: clash.booking,
      }),
    );
  for (const clash of context.organizerClashes ?? [])
    notes.push(
      asWarning(
        'organizer-clash',
        'organizers',
        says('organizerClash', { organizer: clash.organizer, title: clash.booking.title, at: at(clash), more: clash.count - 1 }),
        {
          subject: clash.booking,
        },
      ),
    );
  const alike = new Set((context.lookalikes ?? []).map((l) => l.listingId));
  for (const { listingId, title, because } of context.lookalikes ?? [])
    notes.push(asWarning('lookalike', 'title', says('lookalike', { title, ...because }), { subject: { listingId, title } }));
  const same = (context.sameTitle ?? []).filter((s) => !alike.has(s.listingId))[0];
  if (same) notes.push(asWarning('same-title', 'title', says('sameTitle'), { subject: same }));
  const holiday = coming.find((d) => context.holidays?.has(d.start.day) && d.eventStatus !== 'cancelled');
  if (holiday) {
    const names = sayList([...(context.holidays?.get(holiday.start.day) ?? [])]);
    notes.push(
      asWarning(
        'holiday',
        'when',
        says('holiday', { day: sayDay(holiday.start.day, style, { weekday: 'short', month: 'short', year: true }), names }),
      ),
    );
  }
  for (const part of context.unlooked ?? [])
    notes.push(asError(`copy-${part}`, part, part === 'when' ? says('copyWhen') : says('copyTitle')));
  if (context.backLink) {
    const { link, field, title } = context.backLink;
    notes.push(asWarning('copy-link', field, says('copyLink', { link: link.slice(0, 60), title })));
  }
  return notes;
}

/** Proof against everything else: who else needs the place or the people, what may be the same event, what a copy still needs. */
import type { EpochDay } from '../day/day';
import type { Booking } from '../dates/clashes';
import { type Style, sayDay, sayList, sayTime } from '../phrase/format';
import type { Occurrence } from '../recurrence/model';
import { asWarning, type ValidationNote, asError } from './note';

/** A listing that may be the same event. */
export interface Lookalike {
  listingId: string;
  title: string;
  /** 0 to 1 */
  likeness: number;
  /** "same hall, same evening" */
  because: string;
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
  const times = ({ count }: Clash): string => (count > 1 ? ` and ${count - 1} more` : '');
  for (const clash of context.venueClashes ?? [])
    notes.push(
      asWarning('venue-clash', 'venues', `“${clash.booking.title}” needs the same place: ${at(clash)}${times(clash)}.`, {
        subject: clash.booking,
      }),
    );
  for (const clash of context.organizerClashes ?? [])
    notes.push(
      asWarning('organizer-clash', 'organizers', `${clash.organizer} is at “${clash.booking.title}” then: ${at(clash)}${times(clash)}.`, {
        subject: clash.booking,
      }),
    );
  const alike = new Set((context.lookalikes ?? []).map((l) => l.listingId));
  for (const { listingId, title, because } of context.lookalikes ?? [])
    notes.push(asWarning('lookalike', 'title', `“${title}” may be the same event: ${because}.`, { subject: { listingId, title } }));
  const same = (context.sameTitle ?? []).filter((s) => !alike.has(s.listingId))[0];
  if (same)
    notes.push(asWarning('same-title', 'title', 'Another listing has the same title; readers cannot tell them apart.', { subject: same }));
  const holiday = coming.find((d) => context.holidays?.has(d.start.day) && d.eventStatus !== 'cancelled');
  if (holiday) {
    const names = sayList([...(context.holidays?.get(holiday.start.day) ?? [])]);
    notes.push(
      asWarning('holiday', 'when', `${sayDay(holiday.start.day, style, { weekday: 'short', month: 'short', year: true })} is ${names}.`),
    );
  }
  for (const part of context.unlooked ?? [])
    notes.push(
      asError(
        `copy-${part}`,
        part,
        part === 'when'
          ? 'This is a copy, and its dates are still those of the original.'
          : 'This is a copy, and its title is still that of the original.',
      ),
    );
  if (context.backLink) {
    const { link, field, title } = context.backLink;
    notes.push(asWarning('copy-link', field, `“${link.slice(0, 60)}” still leads to “${title}”, which this was copied from.`));
  }
  return notes;
}

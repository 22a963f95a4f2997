/** Proof against everything else: who else needs the place or the people, what may be the same event, what a copy still needs. */
import type { Day } from '../day/day';
import type { Booking } from '../dates/clashes';
import { type Style, sayDay, sayList, sayTime } from '../phrase/format';
import type { Occurrence } from '../recurrence/model';
import { look, type ProofNote, stops } from './note';

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
  day: Day;
  minute: number | null;
  count: number;
}

export interface AroundContext {
  style: Style;
  venueClashes?: readonly Clash[] | undefined;
  organizerClashes?: readonly (Clash & { organizer: string })[] | undefined;
  lookalikes?: readonly Lookalike[] | undefined;
  /** other listings whose title is the same, word for word */
  sameTitle?: readonly { listingId: string; title: string }[] | undefined;
  redLetters?: ReadonlyMap<Day, readonly string[]> | undefined;
  /** what a copy still has to be looked at: parts of it that were not touched since */
  unlooked?: readonly ('title' | 'when')[] | undefined;
  /** a link of a copy that leads to the page of its original */
  backLink?: { link: string; field: 'text' | 'website'; title: string } | undefined;
}

export function aroundNotes(coming: readonly Occurrence[], context: AroundContext): ProofNote[] {
  const { style } = context;
  const notes: ProofNote[] = [];
  const at = ({ day, minute }: Clash): string =>
    `${sayDay(day, style, { weekday: 'short', month: 'short' })}${minute === null ? '' : ` ${sayTime(minute, style)}`}`;
  const times = ({ count }: Clash): string => (count > 1 ? ` and ${count - 1} more` : '');
  for (const clash of context.venueClashes ?? [])
    notes.push(
      look('venue-clash', 'venues', `“${clash.booking.title}” needs the same place: ${at(clash)}${times(clash)}.`, {
        subject: clash.booking,
      }),
    );
  for (const clash of context.organizerClashes ?? [])
    notes.push(
      look('organizer-clash', 'organizers', `${clash.organizer} is at “${clash.booking.title}” then: ${at(clash)}${times(clash)}.`, {
        subject: clash.booking,
      }),
    );
  const alike = new Set((context.lookalikes ?? []).map((l) => l.listingId));
  for (const { listingId, title, because } of context.lookalikes ?? [])
    notes.push(look('lookalike', 'title', `“${title}” may be the same event: ${because}.`, { subject: { listingId, title } }));
  const same = (context.sameTitle ?? []).filter((s) => !alike.has(s.listingId))[0];
  if (same)
    notes.push(look('same-title', 'title', 'Another listing has the same title; readers cannot tell them apart.', { subject: same }));
  const holiday = coming.find((d) => context.redLetters?.has(d.start.day) && d.standing !== 'cancelled');
  if (holiday) {
    const names = sayList([...(context.redLetters?.get(holiday.start.day) ?? [])]);
    notes.push(
      look('holiday', 'when', `${sayDay(holiday.start.day, style, { weekday: 'short', month: 'short', year: true })} is ${names}.`),
    );
  }
  for (const part of context.unlooked ?? [])
    notes.push(
      stops(
        `copy-${part}`,
        part,
        part === 'when'
          ? 'This is a copy, and its dates are still those of the original.'
          : 'This is a copy, and its title is still that of the original.',
      ),
    );
  if (context.backLink) {
    const { link, field, title } = context.backLink;
    notes.push(look('copy-link', field, `“${link.slice(0, 60)}” still leads to “${title}”, which this was copied from.`));
  }
  return notes;
}

/** What a changed date runs into: other listings in its venue, and red-letter days. */
import { siteAddress } from '@/client/site-root';
import type { BookingRow } from '@/core/listing/editor';
import { bookingOf, clashesByVenue, inSite } from '@/core/dates/clashes';
import { type ListingContent, venuesOf } from '@/core/listing/content';
import { dateOf } from '@/core/dates/moves';
import type { DayMark } from '@/core/holidays/day-marks';
import { sayList, sayTime, type Style } from '@/core/phrase/format';
import type { Occurrence } from '@/core/recurrence/model';
import { sheetWords } from '@/words/desk';

const w = sheetWords.effects;

interface EffectInput {
  listingId: string;
  siteZone: string;
  style: Style;
  dayMarks: ReadonlyMap<number, readonly DayMark[]>;
}

/** A sentence, or nothing. Without a connection there is nothing to compare with. */
export async function effectsOf(content: ListingContent, key: string, input: EffectInput): Promise<string> {
  const date = dateOf(content, key);
  if (!date || !content.recurrence) return '';
  const here = inSite(date, content.recurrence.zone, input.siteZone);
  const red = (input.dayMarks.get(here.start.day) ?? []).filter((mark) => mark.red).map(({ name }) => name);
  const said = [red.length ? w.thatIs({ list: sayList(red) }) : '', await clashWords(content, here, input)];
  return said.filter(Boolean).join(' ');
}

async function clashWords(content: ListingContent, date: Occurrence, { listingId, style }: EffectInput): Promise<string> {
  const venues = venuesOf(content);
  if (!venues.length || content.attendance === 'online') return '';
  try {
    const response = await fetch(siteAddress(`/api/v1/bookings?${new URLSearchParams({ venues: venues.join(','), not: listingId })}`));
    if (!response.ok) return '';
    const bookings = ((await response.json()) as BookingRow[]).map(bookingOf);
    const found = [...clashesByVenue([date], content.venueIds, bookings).values()].flat();
    if (!found.length) return '';
    const named = found.slice(0, 3).map((b) => `${b.title}${b.start.minute === null ? '' : ` ${sayTime(b.start.minute, style)}`}`);
    return w.itClashesWith({ list: sayList(found.length > 3 ? [...named, w.more({ n: found.length - 3 })] : named) });
  } catch {
    return '';
  }
}

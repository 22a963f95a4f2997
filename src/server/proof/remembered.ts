/**
 * What Proof found out about everything around a listing, remembered while nothing is changed: whoever types is answered many times in a
 * row, and the job that looks at everything comes to the same hall again and again.
 */
import { type Booking, bookingOf, mayMeet, nearTimes } from '@/core/listing/clashes';
import type { BookingRow } from '@/core/listing/editor';
import type { Db } from '../db/client';
import { type BookingQuery, type OrganizerQuery, readBookings, readOrganizerBookings } from '../listings/bookings';

/** So many answers are remembered at once; the oldest goes first. */
const MOST_ANSWERS = 50;
/** Dates of one hall or person, a megabyte or two; of more, what may meet is asked each time. */
const MOST_DATES = 10_000;

interface Kept {
  revision: string;
  answers: Map<string, Promise<unknown>>;
  /** what was asked once: whole halls are read when somebody comes back, not while everything changes all the time */
  once: Set<string>;
}
let kept: Kept | undefined;

function keptAt(revision: string): Kept {
  if (kept?.revision !== revision) kept = { revision, answers: new Map(), once: new Set() };
  return kept;
}

/** `revision`: the state of the content that an answer is for; undefined = it is being changed right now, so nothing is remembered. */
export function remembered<T>(revision: string | undefined, key: string, ask: () => Promise<T>): Promise<T> {
  if (revision === undefined) return ask();
  const { answers } = keptAt(revision);
  const known = answers.get(key);
  if (known) return known as Promise<T>;
  const asked = ask();
  answers.set(key, asked);
  asked.catch(() => answers.delete(key));
  const [oldest] = answers.keys();
  if (answers.size > MOST_ANSWERS && oldest !== undefined) answers.delete(oldest);
  return asked;
}

type Remembered<T> = T & { revision: string | undefined };

/** Dates in venues that may meet some spans, and a few too many: what the comparison takes. */
export function bookingsIn(db: Db, { revision, venueIds, ...query }: Remembered<BookingQuery>): Promise<Booking[]> {
  const read = (id: string, part: Partial<BookingQuery>): Promise<BookingRow[]> => readBookings(db, { ...query, ...part, venueIds: [id] });
  return gather(revision, 'hall', venueIds, query, read);
}

/** The same of people. */
export function bookingsOf(db: Db, { revision, organizerIds, ...query }: Remembered<OrganizerQuery>): Promise<Booking[]> {
  const read = (id: string, part: Partial<OrganizerQuery>): Promise<BookingRow[]> =>
    readOrganizerBookings(db, { ...query, ...part, organizerIds: [id] });
  return gather(revision, 'person', organizerIds, query, read);
}

type Read = (id: string, part: { spans?: undefined; not?: null; most?: number }) => Promise<BookingRow[]>;

/** Was this asked before in this state of the content? From now on it was. */
function comesBack(revision: string | undefined, key: string): boolean {
  if (revision === undefined) return false;
  const { once } = keptAt(revision);
  if (once.has(key)) return true;
  once.add(key);
  return false;
}

async function gather(
  revision: string | undefined,
  kind: string,
  ids: readonly string[],
  { not, from, spans }: Pick<BookingQuery, 'not' | 'from' | 'spans'>,
  read: Read,
): Promise<Booking[]> {
  const near = spans && nearTimes(spans);
  const all: Booking[] = [];
  for (const id of ids) {
    const whole = async (): Promise<Booking[] | undefined> => {
      const rows = await read(id, { spans: undefined, not: null, most: MOST_DATES + 1 });
      return rows.length > MOST_DATES ? undefined : rows.map(bookingOf);
    };
    const key = `${kind} ${from} ${id}`;
    const known = comesBack(revision, key) ? await remembered(revision, key, whole) : undefined;
    const there = known ?? (await read(id, {})).map(bookingOf);
    all.push(...there.filter((booking) => booking.listingId !== not && (!near || mayMeet(booking, near))));
  }
  return all;
}

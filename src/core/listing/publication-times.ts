/** When a listing goes out and comes down by itself. Times are the site's walls; pure, so that form and server say the same. */
import { isoDateTime, parseIsoDateTime, type PlainDateTime } from '../day/plain-date-time';
import { dateTimeToInstant } from '../day/zone';

/** ISO walls, `2027-04-01T09:00`; null = not by itself. */
export interface Times {
  publishAt: string | null;
  withdrawAt: string | null;
}
/** Nothing happens by itself. */
export const NO_TIMES: Times = { publishAt: null, withdrawAt: null };

/** The times as instants, in milliseconds. */
export interface Instants {
  publishAt: number | null;
  withdrawAt: number | null;
}

/** Why a time cannot be set, at its field. */
export type TimesProblem = { field: keyof Times; message: string };

/** The furthest ahead that a time can be set, in days. */
const FURTHEST_DAYS = 5 * 366;

interface Around {
  now: { ms: number };
  zone: string;
  /** is it there for readers already? Then it need not go out first. */
  isPublic: boolean;
}

/** The times as instants, or what is wrong with each and what would be right. */
export function readTimes(times: Times, { now, zone, isPublic }: Around): { instants: Instants } | { problems: TimesProblem[] } {
  const problems: TimesProblem[] = [];
  const read = (field: keyof Times): number | null => {
    const text = times[field];
    if (text === null) return null;
    const wall = parseIsoDateTime(text);
    if (!wall || wall.minute === null) {
      problems.push({ field, message: 'A day and a time of day are needed, such as 1 April 2027, 09:00.' });
      return null;
    }
    const instant = dateTimeToInstant(zone, wall);
    if (instant.kind === 'gap') {
      problems.push({ field, message: `The clocks are put forward then: ${isoDateTime(wall).slice(11)} does not exist on that day.` });
      return null;
    }
    if (instant.ms <= now.ms) problems.push({ field, message: 'That time is past; choose one that is still to come.' });
    else if (instant.ms > now.ms + FURTHEST_DAYS * 86_400_000) problems.push({ field, message: 'That is more than five years ahead.' });
    return instant.ms;
  };
  const instants = { publishAt: read('publishAt'), withdrawAt: read('withdrawAt') };
  if (problems.length) return { problems };
  if (instants.publishAt !== null && instants.withdrawAt !== null && instants.withdrawAt <= instants.publishAt)
    return { problems: [{ field: 'withdrawAt', message: 'It would come down before it goes out; choose a later time.' }] };
  if (instants.withdrawAt !== null && instants.publishAt === null && !isPublic)
    return { problems: [{ field: 'withdrawAt', message: 'It is not out: set when it goes out, or publish it first.' }] };
  return { instants };
}

/** A wall's day and time of day apart, as the form shows them. */
export function partsOf(text: string | null): { day: string; minute: number | null } {
  const wall: PlainDateTime | undefined = text === null ? undefined : parseIsoDateTime(text);
  return wall ? { day: isoDateTime({ day: wall.day, minute: null }), minute: wall.minute } : { day: '', minute: null };
}

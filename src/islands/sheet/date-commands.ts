/** What can be done to a date on a sheet, with its words and what else could be meant by it. Without React. */
import { type EpochDay, isoDay, weekdayOf } from '@/core/day/day';
import { parseIsoDateTime } from '@/core/day/plain-date-time';
import type { ListingContent } from '@/core/listing/content';
import type { DeskDate } from '@/core/sheet/desk-sheet';
import { copyDate, dateOf, isRuled, lengthenAll, lengthenDate, moveAll, moveLater, onlyDate } from '@/core/dates/moves';
import { moveDate, toggleDate } from '@/core/dates/single-dates';
import { sayDay, type Style, WEEKDAYS } from '@/core/phrase/format';
import type { Stored } from './command-history';
import { sayTarget } from './state';
import type { DateCommand, Instead } from './use-commands';

const short = (day: EpochDay, style: Style): string => sayDay(day, style, { weekday: 'short', month: 'short' });
const named = (date: DeskDate): string => `“${date.title || 'Without a title'}”`;
const apart = (days: number): string => `${Math.abs(days) === 1 ? 'a day' : `${Math.abs(days)} days`} ${days > 0 ? 'later' : 'earlier'}`;

/** Its day by the listing's own clock, which may be another than the sheet's. */
const ownDay = (content: ListingContent, date: DeskDate): EpochDay | undefined => dateOf(content, date.original)?.start.day;

/** A single date of something that nobody has seen yet simply is on another day; others keep their name and say that they moved. */
function moveOne(content: ListingContent, date: DeskDate, days: number, isPublic: boolean): ListingContent | undefined {
  if (!isPublic && !isRuled(content, date.original) && !content.changes.some((c) => c.original === date.original))
    return moveAll(content, date.original, days);
  const from = ownDay(content, date);
  return from === undefined ? undefined : moveDate(content, date.original, from + days);
}

/** Moves one date by days; later ones too, or all, are offered where the rule can say it. */
export function moving(date: DeskDate, days: number, style: Style): DateCommand {
  const to = date.startDay + days;
  const weekday = WEEKDAYS[weekdayOf(to)] as string;
  return {
    listingId: date.listingId,
    change: (content) => moveOne(content, date, days, date.stage === 'published'),
    said: `${named(date)} moved to ${sayTarget(date.startDay, to, style)}.`,
    cannot: `${named(date)} has no date on ${short(date.startDay, style)} any more. Look again.`,
    instead: (before: ListingContent, { stage }: Stored): Instead[] => {
      const ruled = isRuled(before, date.original);
      const offers: [string, ListingContent | undefined, string][] = ruled
        ? [
            ['Later ones too', moveLater(before, date.original, days), `${named(date)}: this and all later dates are ${apart(days)}`],
            ['All', moveAll(before, date.original, days), `${named(date)}: all its dates are ${apart(days)}`],
          ]
        : stage === 'published'
          ? [['Without saying “moved”', moveAll(before, date.original, days), `${named(date)} is on ${short(to, style)}`]]
          : [];
      return offers.flatMap(([label, content, said]) =>
        content
          ? [{ label, content, said: `${said}${ruled && weekdayOf(to) !== weekdayOf(date.startDay) ? `: ${weekday}s now` : ''}.` }]
          : [],
      );
    },
  };
}

/** An extra date of the same listing on another day. */
export function copying(date: DeskDate, day: EpochDay, style: Style): DateCommand {
  return {
    listingId: date.listingId,
    change: (content) => {
      const from = ownDay(content, date);
      return from === undefined ? undefined : copyDate(content, date.original, from + day - date.startDay);
    },
    said: `${named(date)} has an extra date on ${short(day, style)}.`,
    cannot: `${named(date)} has a date on ${short(day, style)} already.`,
    instead: (before) => {
      const from = ownDay(before, date);
      const own = from === undefined ? undefined : onlyDate(before, date.original, from + day - date.startDay);
      return own
        ? [
            {
              label: 'As a listing of its own',
              content: own,
              apart: true,
              said: `${named(date)} of ${short(day, style)} is a draft of its own.`,
            },
          ]
        : [];
    },
  };
}

/** One date longer or shorter by days at either end; all of them, where there are more. */
export function lengthening(date: DeskDate, edge: 'start' | 'end', days: number, style: Style): DateCommand {
  const day = (edge === 'start' ? date.startDay : date.lastDay) + days;
  const words = edge === 'start' ? 'begins' : 'ends';
  return {
    listingId: date.listingId,
    change: (content) => lengthenDate(content, date.original, edge, days),
    said: `${named(date)} ${words} ${short(day, style)}.`,
    cannot: `${named(date)} cannot ${words === 'begins' ? 'begin' : 'end'} ${short(day, style)}: it would end before it begins, or last more than a year.`,
    instead: (before) => {
      const all = edge === 'end' && isRuled(before, date.original) ? lengthenAll(before, date.original, days) : undefined;
      return all ? [{ label: 'All', content: all, said: `${named(date)}: all its dates end ${apart(days)}.` }] : [];
    },
  };
}

export function leavingOut(date: DeskDate, style: Style): DateCommand {
  return {
    listingId: date.listingId,
    change: (content) => {
      const { recurrence } = content;
      const at = parseIsoDateTime(date.original);
      if (!recurrence || !at || recurrence.exdates.includes(date.original)) return undefined;
      // An extra date is simply gone; a date of a rule is left out by its day.
      const extra = recurrence.parts.findIndex((s) => !s.rule && s.start === date.original);
      if (extra >= 0 && recurrence.parts.length > 1) {
        const parts = recurrence.parts.filter((_, i) => i !== extra);
        return { ...content, recurrence: { ...recurrence, parts } };
      }
      return { ...content, recurrence: toggleDate(recurrence, date.original) };
    },
    said: `${named(date)} is left out on ${short(date.startDay, style)}.`,
    cannot: `${named(date)} has no date on ${isoDay(date.startDay)} any more. Look again.`,
  };
}

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
import { sheetWords } from '@/words/desk';

const w = sheetWords.dateCommands;

const short = (day: EpochDay, style: Style): string => sayDay(day, style, { weekday: 'short', month: 'short' });
const named = (date: DeskDate): string => `“${date.title || w.withoutATitle()}”`;
const apart = (days: number): string => (days > 0 ? w.later({ days }) : w.earlier({ days: -days }));

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
    said: w.movedTo({ named: named(date), target: sayTarget(date.startDay, to, style) }),
    cannot: w.hasNoDateOn({ named: named(date), short: short(date.startDay, style) }),
    instead: (before: ListingContent, { stage }: Stored): Instead[] => {
      const ruled = isRuled(before, date.original);
      const offers: [string, ListingContent | undefined, string][] = ruled
        ? [
            [w.laterOnesToo(), moveLater(before, date.original, days), w.thisAndAllLater({ named: named(date), apart: apart(days) })],
            [w.all(), moveAll(before, date.original, days), w.allItsDatesAre({ named: named(date), apart: apart(days) })],
          ]
        : stage === 'published'
          ? [[w.withoutSayingMoved(), moveAll(before, date.original, days), w.isOn({ named: named(date), short: short(to, style) })]]
          : [];
      return offers.flatMap(([label, content, said]) =>
        content
          ? [{ label, content, said: `${said}${ruled && weekdayOf(to) !== weekdayOf(date.startDay) ? w.sNow({ weekday }) : ''}.` }]
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
    said: w.hasAnExtraDate({ named: named(date), short: short(day, style) }),
    cannot: w.hasADateOn({ named: named(date), short: short(day, style) }),
    instead: (before) => {
      const from = ownDay(before, date);
      const own = from === undefined ? undefined : onlyDate(before, date.original, from + day - date.startDay);
      return own
        ? [
            {
              label: w.asAListingOf(),
              content: own,
              apart: true,
              said: w.ofIsADraft({ named: named(date), short: short(day, style) }),
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
    cannot: w.cannotBeginItWould({ named: named(date), words: words === 'begins' ? 'yes' : 'no', short: short(day, style) }),
    instead: (before) => {
      const all = edge === 'end' && isRuled(before, date.original) ? lengthenAll(before, date.original, days) : undefined;
      return all ? [{ label: w.all(), content: all, said: w.allItsDatesEnd({ named: named(date), apart: apart(days) }) }] : [];
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
    said: w.isLeftOutOn({ named: named(date), short: short(date.startDay, style) }),
    cannot: w.hasNoDateOn({ named: named(date), short: isoDay(date.startDay) }),
  };
}

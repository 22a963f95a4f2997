/** A copy of a listing for other dates: what belonged to the one time is left behind. */
import type { EpochDay } from '../day/day';
import { isoDateTime, parseIsoDateTime } from '../day/plain-date-time';
import { withoutCopyWords } from '../validation/text-checks';
import { atSunOfItsDay, type StoredRecurrence, type StoredRecurrencePart } from '../recurrence/stored';
import type { ListingContent } from './content';
import { shiftListing } from '../dates/moves';
import { followStart } from '../dates/repeat-choices';

/** What a copy is asked to have of its own: a title, and dates. */
export interface CopyInput {
  title: string;
  /** the days on which it happens now; none, and no recurrence = its dates stay, to be looked at */
  days: readonly EpochDay[];
  /** dates of its own, whole: where they say no hour, or no end, the original's are taken */
  recurrence?: StoredRecurrence | null | undefined;
}

/**
 * The copy's content: no "copy of", none of the changes to single dates, cancelled or postponed no more, not on top. Of a single date
 * each day makes one at the same hour; a repeating listing begins on the first of the days and follows it.
 */
export function copyOf(content: ListingContent, { title, days, recurrence: own }: CopyInput): ListingContent {
  const recurrence = content.recurrence && { ...content.recurrence, exdates: [], breaks: [] };
  const fresh: ListingContent = {
    ...content,
    title: withoutCopyWords(title.trim()) || title.trim(),
    recurrence,
    changes: [],
    eventStatus: 'going-ahead',
    eventStatusNote: '',
    onTopUntil: null,
  };
  if (own) return { ...fresh, recurrence: atSunOfItsDay(withHoursOf(content.recurrence, own)), whenWords: '' };
  if (!recurrence || !days.length) return fresh;
  return {
    ...fresh,
    recurrence: atSunOfItsDay(
      retimed(
        fresh,
        recurrence,
        [...new Set(days)].sort((a, b) => a - b),
      ),
    ),
  };
}

const sunOf = ({ sun }: StoredRecurrencePart): Pick<StoredRecurrencePart, 'sun'> => (sun ? { sun } : {});

/** Other dates at the hours of the original, as far as they say none themselves. */
function withHoursOf(original: StoredRecurrence | null, own: StoredRecurrence): StoredRecurrence {
  const first = original?.parts[0];
  const start = first && parseIsoDateTime(first.start);
  if (!first || !start || start.minute === null) return own;
  const { minute } = start;
  const parts = own.parts.map((recurrencePart): StoredRecurrencePart => {
    const at = parseIsoDateTime(recurrencePart.start);
    const wholeDay = at?.minute === null && (recurrencePart.length?.days ?? 1) === 1;
    if (at && wholeDay) return { ...recurrencePart, start: isoDateTime({ day: at.day, minute }), length: first.length, ...sunOf(first) };
    if (!at || at.minute === null || recurrencePart.length || first.length?.minute == null) return recurrencePart;
    const ends = at.minute + first.length.days * 1440 + first.length.minute - minute;
    return { ...recurrencePart, length: { days: Math.floor(ends / 1440), minute: ((ends % 1440) + 1440) % 1440 } };
  });
  const hours = (key: string): string =>
    parseIsoDateTime(key)?.minute === null ? isoDateTime({ day: parseIsoDateTime(key)?.day ?? 0, minute }) : key;
  return { ...own, parts, exdates: own.exdates.map(hours) };
}

function retimed(content: ListingContent, recurrence: StoredRecurrence, days: readonly EpochDay[]): StoredRecurrence {
  const first = recurrence.parts[0];
  const start = first && parseIsoDateTime(first.start);
  const [day, ...more] = days;
  if (!first || !start || day === undefined) return recurrence;
  const singles = recurrence.parts.every((s) => !s.rule);
  // One date, or several of their own: as many as there are days now, each as the first was.
  if (singles) {
    const single = (d: EpochDay): StoredRecurrencePart => ({ ...first, start: isoDateTime({ ...start, day: d }) });
    return { ...recurrence, parts: days.map(single) };
  }
  const moved = shiftListing(content, day - start.day)?.recurrence ?? begun(recurrence, day);
  const extra = more.map(
    (d): StoredRecurrencePart => ({
      ...{ start: isoDateTime({ ...start, day: d }), length: first.length, ...sunOf(first) },
      ...{ rule: null, limit: { kind: 'open' } },
    }),
  );
  return { ...moved, parts: [...moved.parts, ...extra] };
}

/** Where a rule cannot be moved as a whole it begins anew on the day, with the days of the week or month that this day has. */
function begun(recurrence: StoredRecurrence, day: EpochDay): StoredRecurrence {
  const first = parseIsoDateTime(recurrence.parts[0]?.start ?? '');
  const parts = recurrence.parts.map((recurrencePart) => {
    const start = parseIsoDateTime(recurrencePart.start);
    if (!start || !first) return recurrencePart;
    const to = start.day + day - first.day;
    return { ...recurrencePart, start: isoDateTime({ ...start, day: to }), rule: followStart(recurrencePart.rule, start.day, to) };
  });
  return { ...recurrence, parts };
}

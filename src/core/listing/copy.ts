/** A copy of a listing for other dates: what belonged to the one time is left behind. */
import type { Day } from '../day/day';
import { isoWall, parseIsoWall } from '../day/wall';
import { withoutCopyWords } from '../validation/text-checks';
import type { StoredRecurrence, StoredStretch } from '../recurrence/stored';
import type { ListingContent } from './content';
import { shiftListing } from '../dates/moves';
import { followStart } from '../dates/repeat-choices';

export interface CopyInput {
  title: string;
  /** the days on which it happens now; none, and no recurrence = its dates stay, to be looked at */
  days: readonly Day[];
  /** dates of its own, whole: where they say no hour, or no end, the original's are taken */
  recurrence?: StoredRecurrence | null | undefined;
}

/**
 * The copy's content: no "copy of", none of the changes to single dates, cancelled or postponed no more, not on top. Of a single date
 * each day makes one at the same hour; a repeating listing begins on the first of the days and follows it.
 */
export function copyOf(content: ListingContent, { title, days, recurrence: own }: CopyInput): ListingContent {
  const recurrence = content.recurrence && { ...content.recurrence, leftOut: [], breaks: [] };
  const fresh: ListingContent = {
    ...content,
    title: withoutCopyWords(title.trim()) || title.trim(),
    recurrence,
    changes: [],
    standing: 'going-ahead',
    standingNote: '',
    onTopUntil: null,
  };
  if (own) return { ...fresh, recurrence: withHoursOf(content.recurrence, own), whenWords: '' };
  if (!recurrence || !days.length) return fresh;
  return {
    ...fresh,
    recurrence: retimed(
      fresh,
      recurrence,
      [...new Set(days)].sort((a, b) => a - b),
    ),
  };
}

/** Other dates at the hours of the original, as far as they say none themselves. */
function withHoursOf(original: StoredRecurrence | null, own: StoredRecurrence): StoredRecurrence {
  const first = original?.stretches[0];
  const start = first && parseIsoWall(first.start);
  if (!first || !start || start.minute === null) return own;
  const { minute } = start;
  const stretches = own.stretches.map((stretch): StoredStretch => {
    const at = parseIsoWall(stretch.start);
    const wholeDay = at?.minute === null && (stretch.length?.days ?? 1) === 1;
    if (at && wholeDay) return { ...stretch, start: isoWall({ day: at.day, minute }), length: first.length };
    if (!at || at.minute === null || stretch.length || first.length?.minute == null) return stretch;
    const ends = at.minute + first.length.days * 1440 + first.length.minute - minute;
    return { ...stretch, length: { days: Math.floor(ends / 1440), minute: ((ends % 1440) + 1440) % 1440 } };
  });
  const hours = (key: string): string => (parseIsoWall(key)?.minute === null ? isoWall({ day: parseIsoWall(key)?.day ?? 0, minute }) : key);
  return { ...own, stretches, leftOut: own.leftOut.map(hours) };
}

function retimed(content: ListingContent, recurrence: StoredRecurrence, days: readonly Day[]): StoredRecurrence {
  const first = recurrence.stretches[0];
  const start = first && parseIsoWall(first.start);
  const [day, ...more] = days;
  if (!first || !start || day === undefined) return recurrence;
  const singles = recurrence.stretches.every((s) => !s.rule);
  // One date, or several of their own: as many as there are days now, each as the first was.
  if (singles) {
    const single = (d: Day): StoredStretch => ({ ...first, start: isoWall({ ...start, day: d }) });
    return { ...recurrence, stretches: days.map(single) };
  }
  const moved = shiftListing(content, day - start.day)?.recurrence ?? begun(recurrence, day);
  const extra = more.map(
    (d): StoredStretch => ({ start: isoWall({ ...start, day: d }), length: first.length, rule: null, limit: { kind: 'open' } }),
  );
  return { ...moved, stretches: [...moved.stretches, ...extra] };
}

/** Where a rule cannot be moved as a whole it begins anew on the day, with the days of the week or month that this day has. */
function begun(recurrence: StoredRecurrence, day: Day): StoredRecurrence {
  const first = parseIsoWall(recurrence.stretches[0]?.start ?? '');
  const stretches = recurrence.stretches.map((stretch) => {
    const start = parseIsoWall(stretch.start);
    if (!start || !first) return stretch;
    const to = start.day + day - first.day;
    return { ...stretch, start: isoWall({ ...start, day: to }), rule: followStart(stretch.rule, start.day, to) };
  });
  return { ...recurrence, stretches };
}

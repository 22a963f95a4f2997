/** What became of a phrase: right, asked about, handed back, dated in spite of words that were not understood, or wrong without a word. */
import { dayOf, isoDay, parseIsoDay } from '@/core/day/day';
import { isoDateTime } from '@/core/day/plain-date-time';
import { readPhrase } from '@/core/phrase/read/read-phrase';
import { expand } from '@/core/recurrence/expand';
import { CORPUS } from './corpus';
import { LAST, type Means, type Phrase, TODAY } from './oracle';

export const VERDICTS = ['right', 'asked', 'handed back', 'dated all the same', 'wrong without a word'] as const;
export type Verdict = (typeof VERDICTS)[number];

const NOW = { day: parseIsoDay(TODAY) as number, minute: 600 };
const END = parseIsoDay(LAST) ?? dayOf(2030, 2, 28);

/** Dates of a reading in the way the corpus writes them. */
function datesOf(phrase: string): { dates: string[] | undefined; asked: boolean; unread: boolean } {
  const { recurrence, problems, unread } = readPhrase({
    ...{ phrase, now: NOW, zone: 'America/Halifax', weekStart: 0 },
    style: { date: 'day-month', hours: '24' },
  });
  const dates = recurrence
    ? expand(recurrence, [], Math.min(NOW.day, ...recurrence.parts.map((s) => s.start.day)), END).map(({ start, end }) => {
        if (start.minute === null) {
          const last = (end?.day ?? start.day + 1) - 1;
          return last > start.day ? `${isoDay(start.day)}/${isoDay(last)}` : isoDay(start.day);
        }
        return end ? `${isoDateTime(start)}/${isoDateTime(end)}` : isoDateTime(start);
      })
    : undefined;
  return { dates: dates?.sort(), asked: problems.length > 0, unread: unread.length > 0 };
}

/** A series that is under way today goes on tomorrow: whether its date of this morning, already past, belongs to it is not judged. */
const ahead = (dates: readonly string[]): string => (dates.length > 1 ? dates.filter((date) => !date.startsWith(TODAY)) : dates).join();

export function judge([text, means]: Phrase): Verdict {
  const { dates, asked, unread } = datesOf(text);
  if (typeof means !== 'string') {
    const same = dates !== undefined && ahead(dates) === ahead(means.dates);
    if (same && !asked && !unread) return 'right';
    if (asked) return 'asked';
    if (dates === undefined) return 'handed back';
    return unread ? 'dated all the same' : 'wrong without a word';
  }
  if (asked || dates === undefined) return right(means, asked);
  return unread ? 'dated all the same' : 'wrong without a word';
}

/** Where there is nothing to know, it is right to hand the words back and right to ask; where there are two readings, to ask. */
const right = (means: Exclude<Means, object>, asked: boolean): Verdict => (means === 'none' || asked ? 'right' : 'handed back');

export interface Tally {
  kind: string;
  counts: Record<Verdict, number>;
  /** phrases that are not right, with what became of them */
  others: [string, Verdict][];
}

export function judgeAll(): Tally[] {
  return Object.entries(CORPUS).map(([kind, phrases]) => {
    const counts = Object.fromEntries(VERDICTS.map((v) => [v, 0])) as Record<Verdict, number>;
    const others: [string, Verdict][] = [];
    for (const phrase of phrases) {
      const verdict = judge(phrase);
      counts[verdict]++;
      if (verdict !== 'right') others.push([phrase[0], verdict]);
    }
    return { kind, counts, others };
  });
}

/** Proof of the dates: what cannot be, what is over, and what people rarely mean. */
import type { EpochDay } from '../day/day';
import type { ListingContent } from '../listing/content';
import { NIGHT_ENDS, type Style, sayDay, sayTime } from '../phrase/format';
import { endOf, startsBetween } from '../recurrence/expand';
import { type Recurrence, rule, type RecurrencePart } from '../recurrence/model';
import { problemsOf, type RecurrenceProblem, MOST_A_DAY } from '../recurrence/problems';
import { changesFromStored, fromStored, StoredDateError, toStored } from '../recurrence/stored';
import { good, asWarning, type QuickFix, type ValidationNote, asError } from './note';
import { says } from './saying';

/** What the checks of dates know besides the content. */
export interface WhenContext {
  today: EpochDay;
  horizon: EpochDay;
  style: Style;
}

/** Longer than this without a break is unusual for something that has hours. */
const LONG_MINUTES = 720;
/** Dances end by two; what ends later is more often an afternoon. */
const LATE = 120;
/** Nobody gathers at these hours, unless they say so. */
const SMALL_HOURS = { from: 60, to: 330 };

/** What is wrong with the dates, or rarely meant. */
export function whenNotes(content: ListingContent, context: WhenContext): ValidationNote[] {
  const open = content.whenWords.trim();
  const words = open
    ? [asError('when-words', 'when', says('wordsOpen', { words: open.length > 80 ? `${open.slice(0, 79)}…` : open }))]
    : [];
  return [...words, ...dateNotes(content, context)];
}

function dateNotes(content: ListingContent, context: WhenContext): ValidationNote[] {
  if (!content.recurrence) return [asError('when-missing', 'when', says('noDateYet'))];
  let recurrence: Recurrence;
  try {
    recurrence = fromStored(content.recurrence);
    changesFromStored(content.changes);
  } catch (error) {
    if (error instanceof StoredDateError) return [asError('date-unknown', 'when', says('dateUnknown', { text: error.text.slice(0, 30) }))];
    throw error;
  }
  if (!recurrence.parts.length) return [asError('when-missing', 'when', says('noDateYet'))];
  const notes = problemsOf(recurrence, context.horizon).map((problem) => problemNote(problem, recurrence, context.style));
  if (notes.some((n) => n.severity === 'error')) return notes;
  return [...notes, ...comingNotes(recurrence, context), ...unusualNotes(recurrence, context.style), ...shapeNotes(recurrence, context)];
}

/** The content with one part changed. */
function withPart(recurrence: Recurrence, index: number, change: Partial<RecurrencePart>): QuickFix['content'] {
  const parts = recurrence.parts.map((s, i) => (i === index ? { ...s, ...change } : s));
  return { recurrence: toStored({ ...recurrence, parts }) };
}

/** A problem of the recurrence, said to the editor. */
function problemNote(problem: RecurrenceProblem, recurrence: Recurrence, style: Style): ValidationNote {
  switch (problem.kind) {
    case 'end-before-start': {
      const length = recurrence.parts[problem.recurrencePart]?.length;
      const quickFix = length &&
        length.minute !== null && {
          says: says('endNextDay'),
          content: withPart(recurrence, problem.recurrencePart, { length: { ...length, days: 1 } }),
        };
      return asError(problem.kind, 'when', says('endsBeforeStart'), quickFix ? { quickFix } : {});
    }
    case 'never':
      return asError(problem.kind, 'when', says('never'));
    case 'limit-before-start':
      return asError(problem.kind, 'when', says('limitBeforeStart'));
    case 'no-dates':
      return asError(problem.kind, 'when', says('noDates'));
    case 'too-dense':
      return asError(problem.kind, 'when', says('tooDense', { most: MOST_A_DAY }));
    case 'too-much':
      return asError(problem.kind, 'when', says('tooMuch'));
    case 'break-reversed': {
      const breaks = recurrence.breaks.map((b, i) => (i === problem.index ? { from: b.to, to: b.from } : b));
      const quickFix = { says: says('turnItAround'), content: { recurrence: toStored({ ...recurrence, breaks }) } };
      return asError(problem.kind, 'when', says('breakReversed'), { quickFix });
    }
    case 'start-not-in-rule': {
      const start = recurrence.parts[problem.recurrencePart]?.start;
      const fits = sayDay(problem.fits, style, { weekday: 'long', year: true });
      const quickFix = start && {
        says: says('beginOn', { fits }),
        content: withPart(recurrence, problem.recurrencePart, { start: { ...start, day: problem.fits } }),
      };
      // Readers would see a date that no sentence names.
      return asError(problem.kind, 'when', says('startNotInRule', { fits }), quickFix ? { quickFix } : {});
    }
    case 'no-sun':
      return asWarning(problem.kind, 'when', says('noSun', { n: problem.days.length, days: daysWords(problem.days, style) }));
    case 'sun-after-end':
      return asError(problem.kind, 'when', says('sunAfterEnd', { n: problem.days.length, days: daysWords(problem.days, style) }));
    case 'start-in-gap':
      return asWarning(problem.kind, 'when', says('startInGap', { minutes: problem.minutes }));
    case 'dates-in-gap':
      return asWarning(problem.kind, 'when', says('datesInGap', { days: daysWords(problem.days, style) }));
  }
}

/** The first three of some days. */
const daysWords = (days: readonly EpochDay[], style: Style): string =>
  days
    .slice(0, 3)
    .map((day) => sayDay(day, style, { year: true }))
    .join(', ');

function comingNotes(recurrence: Recurrence, { today, horizon, style }: WhenContext): ValidationNote[] {
  const first = startsBetween(recurrence, today, horizon)[0];
  if (first)
    return [
      good('coming', 'when', says('nextDate', { day: sayDay(first.wall.day, style, { weekday: 'short', month: 'short', year: true }) })),
    ];
  const later = recurrence.parts.some((s) => s.start.day > horizon);
  return [asWarning('no-coming-date', 'when', later ? says('beyondHorizon') : says('allPast'))];
}

/** Hours and lengths that are rarely meant: each kind once, at the first part that has it. */
function unusualNotes(recurrence: Recurrence, style: Style): ValidationNote[] {
  const notes: ValidationNote[] = [];
  for (const [index, recurrencePart] of recurrence.parts.entries()) {
    if (recurrencePart.start.minute === null) continue;
    const found = [oddHour(recurrence, index, style), oddLength(recurrence, index, style)];
    for (const note of found) if (note && !notes.some((n) => n.kind === note.kind)) notes.push(note);
  }
  return notes;
}

/** A start at three in the night: three in the afternoon is meant more often. */
function oddHour(recurrence: Recurrence, index: number, style: Style): ValidationNote | undefined {
  const { start, length, sun } = recurrence.parts[index] as RecurrencePart;
  // The sun is early where it is early.
  if (sun || start.minute === null || start.minute < SMALL_HOURS.from || start.minute >= SMALL_HOURS.to) return undefined;
  const later = start.minute + 720;
  const end = length?.minute ?? null;
  const moved = length && end !== null && length.days === 0 && end < later ? { ...length, minute: Math.min(1439, end + 720) } : length;
  const content = withPart(recurrence, index, { start: { ...start, minute: later }, length: moved });
  const quickFix = { says: says('makeItTime', { time: sayTime(later, style) }), content };
  return asWarning('odd-hour', 'when', says('oddHour', { time: sayTime(start.minute, style) }), { quickFix });
}

function oddLength(recurrence: Recurrence, index: number, style: Style): ValidationNote | undefined {
  const { start, length } = recurrence.parts[index] as RecurrencePart;
  const end = endOf(start, length);
  if (!end || start.minute === null) return undefined;
  const endMinute = end.minute ?? 0;
  const minutes = (end.day - start.day) * 1440 + endMinute - start.minute;
  if (minutes <= 0 || minutes >= 1440) return undefined;
  if (minutes < 10) return asWarning('short', 'when', says('short', { minutes }));
  if (end.day > start.day && endMinute > LATE && endMinute <= NIGHT_ENDS) {
    const afternoon = endMinute + 720;
    const content = withPart(recurrence, index, { length: { days: 0, minute: afternoon } });
    const quickFix = afternoon > start.minute && { says: says('endAt', { time: sayTime(afternoon, style) }), content };
    return asWarning('late-end', 'when', says('lateEnd', { time: sayTime(endMinute, style) }), quickFix ? { quickFix } : {});
  }
  return minutes > LONG_MINUTES ? asWarning('long', 'when', says('long', { hours: Math.round(minutes / 6) / 10 })) : undefined;
}

/** One long event that may be many, and many without an end. */
function shapeNotes(recurrence: Recurrence, { style, horizon }: WhenContext): ValidationNote[] {
  const notes: ValidationNote[] = [];
  for (const [index, recurrencePart] of recurrence.parts.entries()) {
    const { start, length, limit } = recurrencePart;
    if (!recurrencePart.rule && start.minute !== null && length && length.days >= 1 && length.minute !== null) {
      const evening = length.days === 1 && length.minute <= NIGHT_ENDS;
      if (!evening && length.minute > start.minute) {
        const until = start.day + length.days;
        const daily = { rule: rule('daily'), length: { days: 0, minute: length.minute }, limit: { kind: 'until' as const, day: until } };
        notes.push(
          asWarning(
            'maybe-daily',
            'when',
            says('maybeDaily', {
              from: sayTime(start.minute, style),
              first: sayDay(start.day, style),
              to: sayTime(length.minute, style),
              last: sayDay(until, style),
            }),
            {
              quickFix: {
                says: says('makeItEachDay', { from: sayTime(start.minute, style), to: sayTime(length.minute, style) }),
                content: withPart(recurrence, index, daily),
              },
            },
          ),
        );
      }
    }
    if (recurrencePart.rule && limit.kind === 'open' && !notes.some((n) => n.kind === 'endless')) {
      const day = Math.min(horizon, start.day + 364);
      notes.push(
        asWarning('endless', 'when', says('endless'), {
          quickFix: {
            says: says('letItEndOn', { day: sayDay(day, style, { year: true }) }),
            content: withPart(recurrence, index, { limit: { kind: 'until', day } }),
          },
        }),
      );
    }
  }
  return notes;
}

/** Days of a listing's dates around now: those of the last year and until the horizon, for comparing with its words. */
export function daysAround(content: ListingContent, { today, horizon }: Pick<WhenContext, 'today' | 'horizon'>): EpochDay[] {
  if (!content.recurrence) return [];
  try {
    const days = startsBetween(fromStored(content.recurrence), today - 366, horizon).map(({ wall }) => wall.day);
    const moved = changesFromStored(content.changes).flatMap((c) => (c.movedTo ? [c.movedTo.day] : []));
    return [...new Set([...days, ...moved])].sort((a, b) => a - b);
  } catch {
    return [];
  }
}

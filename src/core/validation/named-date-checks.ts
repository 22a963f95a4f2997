/** Weekdays, dates and years named in words that differ from the dates that a listing has. */
import { type EpochDay, dateExists, dayOf, weekdayOf, ymdOf } from '../day/day';
import type { ListingContent } from '../listing/content';
import { MONTHS, type Style, sayDay, sayList, WEEKDAYS } from '../phrase/format';
import { plainText } from '../text/text';
import { asWarning, type ValidationField, type ValidationNote } from './note';
import { says } from './saying';

/** Before these, a day is no day of the listing: "except Fridays", "book by 3 March", "since 1987". */
const NOT_ITS_OWN =
  /\b(except|excluding|not|no|never|but|without|instead of|by|until|till|before|after|from|since|book|booking|deadline|closes?|closed|opens?|register|apply|postponed from|moved from|usually|last|next|every other|founded|built|established|est|in|of|the)\s+(on\s+|the\s+)?$/i;
/** Weekdays that are part of a name. */
const NAMES = /\b(good|easter|palm|black|ash|shrove|whit|maundy|holy|boxing|pancake|cyber|super|bloody|sunday)\s+$/i;
const AFTER_NAMES = /^(\s+(best|roast|lunch|school|papers?|times|post|club|league)\b|’s|'s)/i;

const weekdayPattern = new RegExp(`\\b(${WEEKDAYS.join('|')})s?\\b`, 'gi');
const monthNames = MONTHS.map((m) => `${m}|${m === 'September' ? 'Sept?' : m.slice(0, 3)}`).join('|');
const datePattern = new RegExp(
  `\\b(?:(\\d{1,2})(?:st|nd|rd|th)?\\s+(?:of\\s+)?(${monthNames})|(${monthNames})\\s+(\\d{1,2})(?:st|nd|rd|th)?)\\b\\.?(?:,?\\s+(\\d{4}))?`,
  'gi',
);
const yearPattern = /\b(20\d\d)\b/g;

interface Named {
  /** what stands there */
  words: string;
  index: number;
}

/** Weekdays that a text says the listing happens on. */
export function weekdaysIn(text: string): (Named & { weekday: number })[] {
  return [...text.matchAll(weekdayPattern)].flatMap((m) => {
    const before = text.slice(0, m.index);
    const after = text.slice(m.index + m[0].length);
    if (NOT_ITS_OWN.test(before) || NAMES.test(before) || AFTER_NAMES.test(after)) return [];
    const weekday = WEEKDAYS.findIndex((w) => w.toLowerCase() === m[1]?.toLowerCase());
    return [{ words: m[0], index: m.index, weekday }];
  });
}

/** Days of a month that a text says the listing happens on; a year only where it stands there. */
export function datesIn(text: string): (Named & { month: number; day: number; year: number | undefined })[] {
  return [...text.matchAll(datePattern)].flatMap((m) => {
    const day = Number(m[1] ?? m[4]);
    const name = (m[2] ?? m[3] ?? '').slice(0, 3).toLowerCase();
    const month = MONTHS.findIndex((x) => x.slice(0, 3).toLowerCase() === name) + 1;
    const year = m[5] ? Number(m[5]) : undefined;
    const before = text.slice(0, m.index).replace(/\b(mon|tues|wednes|thurs|fri|satur|sun)day,?\s+$/i, '');
    // "may 5 people" and a day that no month has are no dates.
    if (!month || !dateExists(year ?? 2028, month, day) || NOT_ITS_OWN.test(before)) return [];
    if ((m[3] ?? m[2]) === 'may') return [];
    return [{ words: m[0], index: m.index, month, day, year }];
  });
}

interface DatesContext {
  today: EpochDay;
  style: Style;
  /** the days of the listing's dates, past and coming, sorted */
  days: readonly EpochDay[];
}

const FIELDS = ['title', 'shortTitle', 'summary', 'text'] as const;

/** Weekdays and dates named in the text that are not those of the listing. */
export function namedDateNotes(content: ListingContent, context: DatesContext): ValidationNote[] {
  if (!context.days.length) return [];
  const notes: ValidationNote[] = [];
  for (const field of FIELDS) {
    const text = field === 'text' ? plainText(content.text) : String(content[field]);
    if (!text) continue;
    if (!notes.some((n) => n.kind === 'weekday-differs')) notes.push(...weekdayNote(text, field, context));
    if (!notes.some((n) => n.kind === 'date-differs')) notes.push(...dateNote(text, field, context));
    if (!notes.some((n) => n.kind === 'year-differs')) notes.push(...yearNote(text, field, context));
  }
  return notes;
}

function weekdayNote(text: string, field: ValidationField, { days, today, style }: DatesContext): ValidationNote[] {
  const coming = days.filter((day) => day >= today);
  const own = new Set((coming.length ? coming : days).map(weekdayOf));
  const other = weekdaysIn(text).filter(({ weekday }) => !own.has(weekday));
  // A text that names one of its days and another tells of more than the dates: only where none fits is something wrong.
  const named = weekdaysIn(text);
  if (!other.length || other.length < named.length) return [];
  const words = other[0]?.words ?? '';
  const first = coming[0] ?? days[0];
  if (own.size === 1 && first !== undefined) {
    const said = says('weekdayDiffers', {
      field,
      words,
      weekday: WEEKDAYS[weekdayOf(first)] ?? '',
      day: sayDay(first, style, { year: true }),
    });
    return [asWarning('weekday-differs', field, said)];
  }
  const weekdays = sayList([...own].sort().map((w) => `${WEEKDAYS[w]}s`));
  return [asWarning('weekday-differs', field, says('weekdaysDiffer', { field, words, weekdays }))];
}

function dateNote(text: string, field: ValidationField, { days, style }: DatesContext): ValidationNote[] {
  const has = (month: number, day: number, year: number | undefined): boolean =>
    days.some((d) => {
      const own = ymdOf(d);
      return own.month === month && own.day === day && (year === undefined || own.year === year);
    });
  const named = datesIn(text);
  const other = named.filter(({ month, day, year }) => !has(month, day, year));
  if (!other.length) return [];
  const first = other[0];
  const year = first?.year ?? ymdOf(days[days.length - 1] ?? 0).year;
  const close = first && dateExists(year, first.month, first.day) ? nearest(days, dayOf(year, first.month, first.day)) : days[0];
  const words = first?.words ?? '';
  return [
    asWarning(
      'date-differs',
      field,
      close === undefined
        ? says('dateDiffers', { field, words })
        : says('dateDiffersNearest', { field, words, day: sayDay(close, style, { weekday: 'long', year: true }) }),
    ),
  ];
}

function nearest(days: readonly EpochDay[], to: EpochDay): EpochDay | undefined {
  return days.reduce<EpochDay | undefined>(
    (best, day) => (best === undefined || Math.abs(day - to) < Math.abs(best - to) ? day : best),
    undefined,
  );
}

function yearNote(text: string, field: ValidationField & keyof ListingContent, { days, today }: DatesContext): ValidationNote[] {
  const coming = days.filter((day) => day >= today);
  const own = new Set((coming.length ? coming : days).map((day) => ymdOf(day).year));
  const first = Math.min(...own);
  const old = [...text.matchAll(yearPattern)].find((m) => {
    const year = Number(m[1]);
    // What lies longer back, or ahead, is told on purpose; a year of a date that is wrong is that note's matter.
    return (
      !own.has(year) &&
      year < first &&
      year >= first - 2 &&
      !NOT_ITS_OWN.test(text.slice(0, m.index)) &&
      !datesIn(text).some((d) => d.year === year)
    );
  });
  if (!old) return [];
  const next = field === 'text' ? undefined : text.replace(old[0], String(first));
  const quickFix = next
    ? { quickFix: { says: says('write', { text: first }), content: { [field]: next } as Partial<ListingContent> } }
    : {};
  return [
    asWarning('year-differs', field, says('yearDiffers', { field, year: old[0], years: sayList([...own].sort().map(String)) }), quickFix),
  ];
}

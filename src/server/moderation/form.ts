/** The short form that a stranger fills in: from its fields to a listing's content. Works without JavaScript. */
import { type EpochDay, isoDay, parseIsoDay, weekdayOf, ymdOf } from '@/core/day/day';
import { isoTime } from '@/core/day/plain-date-time';
import { NIGHT_ENDS, sayTimes, type Style } from '@/core/phrase/format';
import { readClock, readClocks } from '@/core/phrase/read/clock-times';
import { sayProblem } from '@/core/phrase/read/phrase-problem';
import { readPhrase } from '@/core/phrase/read/read-phrase';
import { sayRecurrence } from '@/core/phrase/say';
import type { Cost, ListingContent } from '@/core/listing/content';
import { emptyContent, MOST_IN, mostOf } from '@/core/listing/fields';
import { readCost } from '@/core/listing/cost';
import { isMail, readWebAddress } from '@/core/validation/links';
import type { Length, Rule } from '@/core/recurrence/model';
import { fromStored, type StoredLimit, type StoredRecurrence, toStored } from '@/core/recurrence/stored';
import { canonical } from '@/core/text/canonical-json';
import { fold, formText, paragraphs } from '@/core/text/text';
import { type FieldError, fieldError, invalidFields } from '../problem';
import type { SendingWords } from '@/words/sending';
import type { ReferenceData } from '../reference/read';
import { positionOf, type SiteSettings, styleOf } from '../site/settings';

/** What was typed, by field. */
export type Fields = Record<string, string>;

/** Longest values, by field; also the form's maxlength. */
export const LONGEST: Record<string, number> = {
  title: mostOf('title'),
  when: 400,
  text: 5000,
  where: 200,
  who: 200,
  cost: MOST_IN.costWords,
  website: mostOf('website'),
  name: MOST_IN.contactName,
  mail: MOST_IN.mail,
  phone: MOST_IN.phone,
  message: 1000,
};
/** A field that people do not see: what fills it is no person. */
export const TRAP = 'homepage';

/** A sender's form read: the content, and places that are not known here. */
export interface FormResult {
  content: ListingContent;
  name: string;
  mail: string;
  /** for the editors; in the content too where readers may have it */
  phone: string;
  message: string;
  /** where and who in the sender's own words */
  where: string;
  who: string;
}

/** A field as it counts: browsers send line ends as two characters. */
export const typed = (value: string | undefined): string => (value ?? '').replace(/\r\n?/g, '\n').trim();

/** Reads the form. Throws one Problem with every field that needs mending. */
export function readAddForm(fields: Fields, reference: ReferenceData, settings: SiteSettings, today: EpochDay): FormResult {
  const errors: FieldError[] = [];
  const get = (name: string): string => typed(fields[name]);
  const wrong: Wrong = (field, say) => {
    errors.push(fieldError(field, ({ wrong: w }) => say(w)));
  };
  for (const [name, most] of Object.entries(LONGEST)) {
    if (get(name).length > most)
      wrong(name, (w) => w.tooLong({ most: most.toLocaleString('en'), has: get(name).length.toLocaleString('en') }));
  }
  if (get(TRAP)) wrong(TRAP, (w) => w.trap());
  if (!get('title')) wrong('title', (w) => w.title());
  if (!get('name')) wrong('name', (w) => w.name());
  if (!isMail(get('mail'))) wrong('mail', (w) => w.mail());
  const website = get('website') ? readWebAddress(get('website')) : '';
  if (website === undefined) wrong('website', (w) => w.website());
  const { zone, firstWeekday } = settings;
  const whenSettings = { zone, firstWeekday, style: styleOf(settings), sunAt: positionOf(settings) };
  const recurrence = readWhen(fields, whenSettings, today, wrong);
  if (errors.length || !recurrence) throw invalidFields(errors);
  const venue = match(reference.venues, get('where'));
  const organizer = match(reference.organizers, get('who'));
  const kind = reference.categories.find((c) => c.id === get('kind'));
  const content: ListingContent = {
    ...emptyContent(),
    title: get('title').replace(/\s+/g, ' '),
    text: paragraphs(get('text')),
    recurrence,
    categoryIds: kind ? [kind.id] : [],
    venueIds: venue ? [venue.id] : [],
    organizerIds: organizer ? [organizer.id] : [],
    cost: readCost(get('cost'), settings.currency),
    website: website ?? '',
    contact: { name: get('showContact') ? get('name') : '', phone: get('showContact') ? get('phone') : '', mail: '' },
  };
  return {
    content,
    name: get('name'),
    mail: get('mail'),
    phone: get('phone'),
    message: get('message'),
    where: venue ? '' : get('where'),
    who: organizer ? '' : get('who'),
  };
}

function match<T extends { name: string }>(list: readonly T[], words: string): T | undefined {
  return words ? list.find((one) => fold(one.name) === fold(words)) : undefined;
}

type Wrong = (field: string, say: (words: SendingWords['wrong']) => string) => void;

interface WhenSettings {
  zone: string;
  firstWeekday: SiteSettings['firstWeekday'];
  style: Style;
  /** where the sun rises and sets */
  sunAt?: { lat: number; lng: number } | undefined;
}

/** Either words or the fields: where both are filled in they must say the same. */
function readWhen(fields: Fields, settings: WhenSettings, today: EpochDay, wrong: Wrong): StoredRecurrence | undefined {
  const words = typed(fields.when);
  if (!words) return readFields(fields, settings, today, wrong);
  const said = readWords(words, settings, today, wrong);
  if (!said || !typed(fields.day)) return said;
  const filled = readFields(fields, settings, today, wrong);
  if (filled && canonical(filled) !== canonical(said)) wrong('when', (w) => w.whenTwice());
  return said;
}

/** The words, with the questions that the editors' own field asks. */
function readWords(
  words: string,
  { zone, style, firstWeekday, sunAt }: WhenSettings,
  today: EpochDay,
  wrong: Wrong,
): StoredRecurrence | undefined {
  if (words.length > (LONGEST.when ?? 0)) return undefined;
  const { recurrence, problems } = readPhrase({
    phrase: words,
    now: { day: today, minute: 0 },
    zone,
    weekStart: firstWeekday,
    style,
    sunAt,
  });
  if (problems.length) wrong('when', (w) => w.whenUnread({ questions: problems.map(sayProblem).join(' ') }));
  else if (!recurrence) wrong('when', (w) => w.whenNone());
  return recurrence ? toStored(recurrence) : undefined;
}

function readFields(fields: Fields, settings: WhenSettings, today: EpochDay, wrong: Wrong): StoredRecurrence | undefined {
  const start = parseIsoDay(fields.day ?? '');
  if (start === undefined) {
    wrong('day', (w) => (fields.day ? w.noSuchDay() : w.whichDay()));
    return undefined;
  }
  if (start < today - 366) wrong('day', (w) => w.longAgo());
  if (start > today + 366 * 5) wrong('day', (w) => w.farAhead());
  const days = readLastDay(fields, start, wrong) - start;
  const { from, to } = readTimes(fields, settings, wrong);
  const overnight = from !== undefined && to !== undefined && days === 0 && to <= from;
  if (overnight && to > NIGHT_ENDS) wrong('ends', (w) => w.endsBeforeStart());
  const rule = ruleOf(fields.repeats ?? 'never', start);
  const limit = limitOf(fields, start, rule, wrong);
  let length: Length | null = null;
  if (from === undefined) length = { days: days + 1, minute: null };
  else if (to !== undefined) length = { days: overnight ? 1 : days, minute: to };
  const recurrencePart = { start: from === undefined ? isoDay(start) : `${isoDay(start)}T${isoTime(from)}`, length, rule, limit };
  return { format: 3, zone: settings.zone, parts: [recurrencePart], exdates: [], breaks: [] };
}

function readLastDay(fields: Fields, start: EpochDay, wrong: Wrong): EpochDay {
  if (!fields.lastDay) return start;
  const last = parseIsoDay(fields.lastDay);
  if (last === undefined) wrong('lastDay', (w) => w.noSuchDay());
  else if (last < start) wrong('lastDay', (w) => w.lastBeforeFirst());
  else if (last - start > 92) wrong('lastDay', (w) => w.tooManyDays());
  return last ?? start;
}

function readTimes(fields: Fields, { style }: WhenSettings, wrong: Wrong): { from: number | undefined; to: number | undefined } {
  const from = fields.starts ? readClock(fields.starts) : undefined;
  const to = fields.ends ? readClock(fields.ends, from) : undefined;
  const both = from !== undefined && (!fields.ends || to !== undefined) ? readClocks(fields.starts ?? '', fields.ends ?? '') : undefined;
  if (both?.other) {
    const [first = '', second = ''] = [both, both.other]
      .sort((a, b) => a.from - b.from)
      .map((one) => sayTimes(one.from, one.to ?? null, style));
    const said = [fields.starts, fields.ends].filter(Boolean).join(' to ');
    wrong('starts', (w) => w.twoTimes({ typed: said, first, second }));
  }
  if (both) return both;
  if (fields.starts && from === undefined) wrong('starts', (w) => w.startTime());
  if (fields.ends && to === undefined) wrong('ends', (w) => w.endTime());
  if (to !== undefined && !fields.starts) wrong('starts', (w) => w.noStart());
  return { from, to };
}

/** Weekly on that weekday, or monthly on the same weekday of the month. */
function ruleOf(repeats: string, start: EpochDay): Rule | null {
  const base: Rule = { freq: 'weekly', interval: 1, byMonth: [], byMonthDay: [], byDay: [], weekStart: 0 };
  const weekday = weekdayOf(start);
  if (repeats === 'weekly') return { ...base, byDay: [{ weekday, nth: 0 }] };
  if (repeats === 'second-week') return { ...base, interval: 2, byDay: [{ weekday, nth: 0 }] };
  if (repeats === 'monthly') {
    const nth = Math.ceil(ymdOf(start).day / 7);
    return { ...base, freq: 'monthly', byDay: [{ weekday, nth: nth > 4 ? -1 : nth }] };
  }
  return null;
}

function limitOf(fields: Fields, start: EpochDay, rule: Rule | null, wrong: Wrong): StoredLimit {
  if (!rule || !fields.until) return { kind: 'open' };
  const until = parseIsoDay(fields.until);
  if (until === undefined) wrong('until', (w) => w.noSuchDay());
  else if (until < start) wrong('until', (w) => w.untilBefore());
  return { kind: 'until', day: fields.until };
}

type SentWords = { senderName: string; senderMail: string; senderPhone: string; message: string; said: { where: string; who: string } };

/** The form's fields again, from what was sent: for mending it on the receipt. */
export function fieldsOf(content: ListingContent, sent: SentWords, reference: ReferenceData): Fields {
  return {
    title: content.title,
    text: formText(content.text),
    kind: content.categoryIds[0] ?? '',
    where: reference.venue.get(content.venueIds[0] ?? '')?.name ?? sent.said.where,
    who: reference.organizer.get(content.organizerIds[0] ?? '')?.name ?? sent.said.who,
    cost: costWords(content.cost),
    website: content.website,
    name: sent.senderName,
    mail: sent.senderMail,
    phone: sent.senderPhone || content.contact.phone,
    message: sent.message,
    showContact: content.contact.name ? '1' : '',
    ...whenFields(content),
  };
}

function costWords(cost: Cost): string {
  if (cost.kind === 'amount') return cost.amount;
  if (cost.kind === 'words') return cost.words;
  return cost.kind === 'free' ? 'free' : '';
}

/** The fields where they hold all of it, else the words. */
function whenFields({ recurrence }: ListingContent): Fields {
  const fields = dateFields(recurrence);
  const start = parseIsoDay(fields.day ?? '');
  if (!recurrence || start === undefined) return fields;
  const again = readFields(fields, { zone: recurrence.zone, style: WORDS_STYLE, firstWeekday: 0 }, start, () => {});
  if (again && canonical(again) === canonical(recurrence)) return fields;
  const words = sayRecurrence(fromStored(recurrence), WORDS_STYLE, { whole: true });
  return words.length > (LONGEST.when ?? 0) ? fields : { when: words };
}

/** A sentence that is read again may be in any style. */
const WORDS_STYLE = { date: 'day-month', hours: '24' } as const;

function dateFields(recurrence: StoredRecurrence | null): Fields {
  const recurrencePart = recurrence ? fromStored(recurrence).parts[0] : undefined;
  if (!recurrencePart) return {};
  const { start, length, rule, limit } = recurrencePart;
  const fields: Fields = { day: isoDay(start.day), repeats: repeatWord(rule) };
  const days = start.minute === null ? (length?.days ?? 1) - 1 : (length?.days ?? 0);
  const night = days === 1 && length !== null && length.minute !== null && length.minute <= NIGHT_ENDS;
  if (days > 0 && !night) fields.lastDay = isoDay(start.day + days);
  if (start.minute !== null) fields.starts = isoTime(start.minute);
  if (length && length.minute !== null) fields.ends = isoTime(length.minute);
  if (limit.kind === 'until') fields.until = isoDay(limit.day);
  return fields;
}

function repeatWord(rule: Rule | null): string {
  if (!rule) return 'never';
  if (rule.freq === 'monthly') return 'monthly';
  return rule.interval === 2 ? 'second-week' : 'weekly';
}

/** Many lines, or a mail, read as a table of listings: what a row does not say of its day it takes from the row before. */
import { endOf } from '../recurrence/expand';
import type { Recurrence, RecurrencePart } from '../recurrence/model';
import type { PlainDateTime } from '../day/plain-date-time';
import { type LineSetting, LONGEST_LINE, type ReadLine, readLine } from './read-line';

/** So many lines are taken at once. */
export const MOST_LINES = 200;

/** A line with its place among those that were pasted. */
export interface LineRow extends ReadLine {
  line: string;
  /** is it likely a listing? What has neither a date nor follows one is left out until somebody ticks it */
  likely: boolean;
  /** its day or its time comes from the row before */
  cascaded: boolean;
  /** so does its place */
  placeCascaded: boolean;
  /** the line was longer than what is read of one */
  cut: boolean;
}

/** Lines that are no listings: quotation marks of mails, greetings, signatures. */
const NOISE = /^(hi|hello|dear|hey|thanks|thank you|best|kind regards|regards|cheers|yours|sent from|from:|to:|subject:|date:|cc:)\b/i;

/** The lines of a paste; everything behind a signature's mark is dropped. */
export function linesOf(text: string): string[] {
  const lines: string[] = [];
  for (const raw of text.split(/\r?\n/)) {
    const line = raw.replace(/^[\s>*•·–-]+/, '').trim();
    if (/^--\s*$/.test(raw.trim())) break;
    if (line && !NOISE.test(line)) lines.push(line);
    if (lines.length >= MOST_LINES) break;
  }
  return lines;
}

/** Each line of a text as a listing; place and day carry on to the lines below until one says another. */
export function readLines(text: string, setting: LineSetting): LineRow[] {
  const reader = new LinesReader(setting);
  return linesOf(text).flatMap((line) => reader.read(line) ?? []);
}

/** Reads lines in their order: what one says alone goes for those below it. */
class LinesReader {
  /** where a row without a day, or without a time, goes on */
  private last: { day: number; end: PlainDateTime | null } | undefined;
  /** a day or a place stood alone over these lines: what follows is its programme, also where a line says no time */
  private headed = false;
  /** the place that a heading named, or the row whose programme goes on */
  private where: Pick<ReadLine, 'venueId' | 'place'> = { venueId: null, place: '' };

  constructor(private readonly setting: LineSetting) {}

  /** The row of a line; undefined for a heading. */
  read(line: string): LineRow | undefined {
    const { last, setting } = this;
    const timeOnly = last && timeAlone(line, setting, last.day);
    const read = timeOnly ?? readLine(line, setting);
    if (this.takeHeading(read)) return undefined;
    const inherits = this.placeOf(read, timeOnly !== undefined);
    const follows = this.headed && !read.recurrence && last?.end && !read.problems.length ? following(last.end, setting.zone) : null;
    const recurrence = read.recurrence ?? follows;
    this.goOnFrom(singleOf(recurrence));
    return {
      ...read,
      ...(inherits ? this.where : {}),
      placeCascaded: inherits && (this.where.venueId !== null || this.where.place !== ''),
      cut: line.length > LONGEST_LINE,
      recurrence,
      line,
      likely: recurrence !== null && read.title !== '',
      cascaded: timeOnly !== undefined || follows !== null,
    };
  }

  /** A line that says only a day, or only a place, is the heading of those that follow. */
  private takeHeading(read: ReadLine): boolean {
    const single = singleOf(read.recurrence);
    if (read.title || read.problems.length || !(single || (hasPlace(read) && !read.recurrence))) return false;
    if (single) this.last = { day: single.start.day, end: null };
    this.where = { venueId: read.venueId, place: read.place };
    this.headed = true;
    return true;
  }

  /** Does a row take its place from above? One of its own is that of the rows below, a date of its own ends what was. */
  private placeOf(read: ReadLine, timeOnly: boolean): boolean {
    const asksDay = read.problems.some(({ kind }) => !OF_THE_HOUR.has(kind));
    if ((read.recurrence || asksDay) && !timeOnly) {
      this.headed = false;
      this.where = { venueId: null, place: '' };
      // Which day a line in question is on is not known: what follows it is asked too.
      if (asksDay) this.last = undefined;
    }
    if (hasPlace(read)) this.where = { venueId: read.venueId, place: read.place };
    return !hasPlace(read) && (timeOnly || this.headed);
  }

  private goOnFrom(one: RecurrencePart | undefined): void {
    if (!one) return;
    const { start } = one;
    const hourLater = { ...start, minute: start.minute === null ? null : Math.min(1439, start.minute + 60) };
    this.last = { day: start.day, end: endOf(start, one.length) ?? hourLater };
  }
}

/** Questions that leave the day of a line as it is. */
const OF_THE_HOUR: ReadonlySet<string> = new Set(['no-day', 'no-hour', 'ambiguous-time', 'part-mismatch']);

const hasPlace = ({ venueId, place }: Pick<ReadLine, 'venueId' | 'place'>): boolean => venueId !== null || place !== '';

const singleOf = (recurrence: Recurrence | null): RecurrencePart | undefined =>
  recurrence?.parts.length === 1 && !recurrence.parts[0]?.rule ? recurrence.parts[0] : undefined;

/** "19:30 Band": a line that says a time and no day is on the day of the row before. */
function timeAlone(line: string, setting: LineSetting, day: number): ReadLine | undefined {
  const { problems } = readLine(line, setting);
  return problems.length === 1 && problems[0]?.kind === 'no-day' ? readLine(line, { ...setting, day }) : undefined;
}

/** A row that says nothing of when begins where the one before ended. */
function following(end: PlainDateTime, zone: string): Recurrence | null {
  if (end.minute === null) return null;
  return { zone, parts: [{ start: end, length: null, rule: null, limit: { kind: 'open' } }], exdates: [], breaks: [] };
}

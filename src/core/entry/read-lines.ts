/** Many lines, or a mail, read as a table of listings: what a row does not say of its day it takes from the row before. */
import { endOf } from '../recurrence/expand';
import type { Recurrence, Stretch } from '../recurrence/model';
import type { Wall } from '../day/wall';
import { type LineSetting, type ReadLine, readLine } from './read-line';

export const MOST_LINES = 200;

export interface LineRow extends ReadLine {
  line: string;
  /** is it likely a listing? What has neither a date nor follows one is left out until somebody ticks it */
  likely: boolean;
  /** its day or its time comes from the row before */
  cascaded: boolean;
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

export function readLines(text: string, setting: LineSetting): LineRow[] {
  const rows: LineRow[] = [];
  /** where a row without a day, or without a time, goes on */
  let last: { day: number; end: Wall | null } | undefined;
  /** a day stood alone over these lines: what follows is its programme, also where a line says no time */
  let headed = false;
  for (const line of linesOf(text)) {
    const timeOnly = last && timeAlone(line, setting, last.day);
    const read = timeOnly ?? readLine(line, setting);
    const single = singleOf(read.recurrence);
    // A line that says only a day is the heading of those that follow.
    if (single && !read.title) {
      last = { day: single.start.day, end: null };
      headed = true;
      continue;
    }
    if (read.recurrence && !timeOnly) headed = false;
    const follows = headed && !read.recurrence && last?.end && !read.problems.length ? following(last.end, setting.zone) : null;
    const recurrence = read.recurrence ?? follows;
    const one = singleOf(recurrence);
    if (one)
      last = {
        day: one.start.day,
        end: endOf(one.start, one.length) ?? {
          ...one.start,
          minute: one.start.minute === null ? null : Math.min(1439, one.start.minute + 60),
        },
      };
    rows.push({
      ...read,
      recurrence,
      line,
      likely: recurrence !== null && read.title !== '',
      cascaded: timeOnly !== undefined || follows !== null,
    });
  }
  return rows;
}

const singleOf = (recurrence: Recurrence | null): Stretch | undefined =>
  recurrence?.stretches.length === 1 && !recurrence.stretches[0]?.rule ? recurrence.stretches[0] : undefined;

/** "19:30 Band": a line that says a time and no day is on the day of the row before. */
function timeAlone(line: string, setting: LineSetting, day: number): ReadLine | undefined {
  const { problems } = readLine(line, setting);
  return problems.length === 1 && problems[0]?.kind === 'no-day' ? readLine(line, { ...setting, day }) : undefined;
}

/** A row that says nothing of when begins where the one before ended. */
function following(end: Wall, zone: string): Recurrence | null {
  if (end.minute === null) return null;
  return { zone, stretches: [{ start: end, length: null, rule: null, limit: { kind: 'open' } }], leftOut: [], breaks: [] };
}

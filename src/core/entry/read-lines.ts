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
    const follows = headed && !read.recurrence && last?.end && !read.open ? following(last.end, setting.zone) : null;
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

/** "19:30 Band": a line that begins with a time and names no day is on the day of the row before. */
function timeAlone(line: string, setting: LineSetting, day: number): ReadLine | undefined {
  if (!/^(at\s+)?\d{1,2}([:.]\d{2})?\s*(am|pm|h)?\b|^noon\b|^midnight\b/i.test(line)) return undefined;
  const plain = readLine(line, setting);
  const one = singleOf(plain.recurrence);
  const named =
    /\b(mon|tue|wed|thu|fri|sat|sun|jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec)|\b\d{4}-\d\d|\b\d{1,2}[/]\d|today|tomorrow|every|daily/i.test(
      plain.when,
    );
  if (named || plain.open) return undefined;
  // The time alone means today or tomorrow to the reader: it is read from the day of the row before.
  const there = readLine(line, { ...setting, now: { day, minute: 0 } });
  const found = singleOf(there.recurrence) ?? one;
  if (!found || found.start.minute === null) return undefined;
  return {
    ...there,
    recurrence: { zone: setting.zone, stretches: [{ ...found, start: { day, minute: found.start.minute } }], leftOut: [], breaks: [] },
  };
}

/** A row that says nothing of when begins where the one before ended. */
function following(end: Wall, zone: string): Recurrence | null {
  if (end.minute === null) return null;
  return { zone, stretches: [{ start: end, length: null, rule: null, limit: { kind: 'open' } }], leftOut: [], breaks: [] };
}

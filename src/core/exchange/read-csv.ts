/**
 * Tables in: rows as spreadsheets write them, whatever their separator. Each row is a listing; a column of words is read as people
 * say dates. Papa Parse parses; days and minutes as in the recurrence model. Nothing is guessed away: what cannot be read is said.
 */
import Papa from 'papaparse';
import { type EpochDay, dateExists, dayOf, isoDay, parseIsoDay } from '../day/day';
import { isoDateTime, type PlainDateTime } from '../day/plain-date-time';
import { isZone } from '../day/zone';
import type { Style } from '../phrase/format';
import { readClock } from '../phrase/read/clock-times';
import { sayProblem } from '../phrase/read/phrase-problem';
import { readPhrase } from '../phrase/read/read-phrase';
import type { Length, Recurrence, RecurrencePart } from '../recurrence/model';
import { MOST_IN, mostOf } from '../listing/fields';
import { whyNotTaken } from '../recurrence/problems';
import { readRuleText } from '../recurrence/rule-text';
import { type StoredChange, toStored } from '../recurrence/stored';
import { fold } from '../text/text';
import { addressOf, costOf, eventStatusOf } from './csv-cells';
import { type Column, COLUMNS, columnsOf, type DateOrder, isDateCell, orderOf, separatorOf } from './csv-columns';
import { INCOMING_FORMAT, type Incoming, type IncomingContent, type IncomingFile, type Unreadable } from './incoming';
import { readChange } from './read-change';
import { FileError } from './read-ical';

/** How a table is read: from which moment, in which zone and style, and what somebody chose. */
export interface CsvOptions {
  /** from which moment words are read, in the zone */
  now: { day: EpochDay; minute: number };
  zone: string;
  style: Style;
  weekStart: number;
  currency: string;
  /** where the sun rises and sets, in degrees */
  sunAt?: { lat: number; lng: number } | undefined;
  /** what somebody chose, one a column; else it is found out */
  columns?: readonly string[] | undefined;
  order?: DateOrder | undefined;
}

/** What was found out about a table: its columns, with a sample of each. */
export interface CsvTable {
  headers: string[];
  columns: Column[];
  /** a value of each column, to choose by */
  samples: string[];
  separator: string;
  /** false: dates such as 3/4/2027 stand in it, and nothing tells which is the month */
  ordered: boolean;
}

/** A table read to its end. */
export type CsvFile = IncomingFile & { table: CsvTable };

/** A table has at most so many rows and columns. */
export const MOST_ROWS = 50_000;
const MOST_COLUMNS = 100;
const MOST_CELL = mostOf('text');
/** Columns are recognised by looking at so many rows. */
const SAMPLE = 60;

interface Line {
  /** of the file */
  number: number;
  cells: string[];
}

function linesOf(text: string): { lines: Line[]; separator: string; errors: Papa.ParseError[] } {
  const lines: Line[] = [];
  const errors: Papa.ParseError[] = [];
  const separator = separatorOf(text);
  let number = 1;
  let cursor = 0;
  Papa.parse<string[]>(text, {
    delimiter: separator,
    step: ({ data, meta, errors: wrong }) => {
      errors.push(...wrong);
      if (data.some((cell) => cell.trim() !== '')) lines.push({ number, cells: data });
      // Cells may hold line ends: the file's lines are counted, not the rows.
      number += text.slice(cursor, meta.cursor).split(/\r\n|\n|\r/).length - 1;
      cursor = meta.cursor;
      if (lines.length > MOST_ROWS + 1)
        throw new FileError(`The table has more than ${MOST_ROWS.toLocaleString('en')} rows; bring it in by parts.`);
    },
  });
  return { lines, separator, errors };
}

/** Reads a table. Throws {@link FileError} when it is none. */
export function readCsv(text: string, options: CsvOptions): CsvFile {
  const { lines, separator, errors } = linesOf(text);
  const [head, ...rest] = lines;
  const quotes = errors.find(({ type }) => type === 'Quotes');
  if (quotes && lines.length < 2)
    throw new FileError('A quotation mark is opened and never closed: put one more behind it, or take it out.');
  if (!head || !rest.length) throw new FileError('This is no table: it has no row under its first line.');
  if (head.cells.length < 2) throw new FileError('This is no table: nothing parts its columns (a comma, a semicolon or a tab).');
  if (head.cells.length > MOST_COLUMNS) throw new FileError(`The table has more than ${MOST_COLUMNS} columns.`);
  // A first line that holds a date or an address is no line of names.
  const bare = head.cells.some((cell) => isDateCell(cell.trim()) || /^https?:|@/.test(cell));
  const headers = head.cells.map((cell, i) => (bare ? '' : cell.trim().slice(0, 80)) || `Column ${i + 1}`);
  const rows = bare ? lines : rest;
  const sample = rows.slice(0, SAMPLE).map((row) => row.cells);
  const found = columnsOf(headers, sample);
  const columns = headers.map((_, i): Column => COLUMNS.find((c) => c === options.columns?.[i]) ?? found[i] ?? 'skip');
  const dates = columns.flatMap((column, i) => (column === 'start-date' || column === 'end-date' ? rows.map((r) => r.cells[i] ?? '') : []));
  const order = options.order ?? orderOf(dates);
  const reader = new RowReader(columns, headers, {
    ...options,
    order: order ?? (options.style.date === 'month-day' ? 'month-day' : 'day-month'),
  });
  const items: Incoming[] = [];
  const unreadable: Unreadable[] = quotes
    ? [{ line: head.number, title: '', reason: 'A quotation mark is opened and never closed; rows behind it may be missing.' }]
    : [];
  if (!columns.includes('title')) throw new FileError('No column of the table is a title. Choose which one is.');
  for (const row of rows) {
    try {
      items.push(reader.read(row));
    } catch (error) {
      if (!(error instanceof RowError)) throw error;
      unreadable.push({ line: row.number, title: error.title, reason: error.message });
    }
  }
  const samples = columns.map((_, i) => (sample.find((cells) => cells[i]?.trim())?.[i] ?? '').trim().slice(0, 60));
  const table = { headers, columns, samples, separator, ordered: order !== undefined };
  return { items: distinct(items), unreadable, unknownZones: [], table };
}

/** Two rows of the same name and day are two listings. */
function distinct(items: Incoming[]): Incoming[] {
  const seen = new Map<string, number>();
  return items.map((item) => {
    const n = (seen.get(item.uid) ?? 0) + 1;
    seen.set(item.uid, n);
    return n === 1 ? item : { ...item, uid: `${item.uid}#${n}` };
  });
}

/** Columns of our own table that say where a listing stands, which no file changes. */
const OF_OUR_OWN = new Set(['stage', 'page']);

const named = (cells: readonly string[]): string => cells.map((cell) => `“${cell.trim().slice(0, 40)}”`).join(', ');

class RowError extends Error {
  override name = 'RowError';
  constructor(
    readonly title: string,
    message: string,
  ) {
    super(message);
  }
}

const LISTS = /\s*;\s*/;
const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

/** Dates; with words that ask something; or only the words, when some of them were not understood. */
type When = Recurrence | (Recurrence & { asked: string }) | { open: string };

function datesOf(when: When): Pick<IncomingContent, 'recurrence' | 'whenWords'> {
  if ('open' in when) return { whenWords: when.open };
  return { recurrence: toStored(when), whenWords: 'asked' in when ? when.asked : '' };
}

class RowReader {
  constructor(
    private readonly columns: readonly Column[],
    private readonly headers: readonly string[],
    private readonly options: CsvOptions & { order: DateOrder },
  ) {}

  read({ number, cells }: Line): Incoming {
    const at = (column: Column): string => {
      const i = this.columns.indexOf(column);
      // An apostrophe before what looks like a formula was put there for spreadsheets.
      return i < 0
        ? ''
        : (cells[i] ?? '')
            .trim()
            .replace(/^'(?=[=+\-@])/, '')
            .slice(0, MOST_CELL);
    };
    const has = (column: Column): boolean => this.columns.includes(column);
    const title = at('title').replace(/\s+/g, ' ').slice(0, mostOf('title'));
    if (!title) throw new RowError('', 'It has no title.');
    const notes = this.lost(cells);
    const when = this.when(at, title, notes);
    const content: IncomingContent = { title, ...datesOf(when) };
    const line = (text: string, most: number): string => text.replace(/\s+/g, ' ').slice(0, most);
    if (has('short-title')) content.shortTitle = line(at('short-title'), mostOf('shortTitle'));
    if (has('summary')) content.summary = line(at('summary'), mostOf('summary'));
    if (has('text')) content.text = at('text');
    if (has('website')) content.website = addressOf(at('website'), 'website', notes);
    if (has('access')) content.access = line(at('access'), mostOf('access'));
    if (has('cost')) content.cost = costOf(at('cost'), this.options.currency);
    if (has('eventStatus')) content.eventStatus = eventStatusOf(at('eventStatus'), notes);
    const changes = has('changes') ? this.changes(at('changes'), notes) : undefined;
    if (changes) content.changes = changes;
    if (has('contact') || has('phone') || has('mail'))
      content.contact = {
        name: line(at('contact'), MOST_IN.contactName),
        phone: line(at('phone'), MOST_IN.phone),
        mail: line(at('mail'), MOST_IN.mail),
      };
    if (has('online')) Object.assign(content, this.online(at, notes));
    const html = /<(p|br|ul|ol|li|a|strong|em)\b[^>]*>/i.test(at('text'));
    const id = at('id').slice(0, 200);
    const first = 'open' in when ? undefined : when.parts[0]?.start;
    const several = (column: Column, separator: RegExp): string[] => at(column).split(separator).filter(Boolean).slice(0, 10);
    return {
      format: INCOMING_FORMAT,
      uid: id ? `csv:${id}` : `csv:${fold(title)}|${first ? isoDateTime(first) : ''}|${fold(at('venue'))}`.slice(0, 400),
      line: number,
      sequence: 0,
      content,
      html,
      ...(has('venue') ? { venues: several('venue', LISTS).map((name) => ({ name: line(name, 300) })) } : {}),
      ...(has('organizer') ? { organizers: several('organizer', LISTS).map((name) => ({ name: line(name, 120) })) } : {}),
      ...(has('categories') ? { categories: several('categories', /\s*[;,|]\s*/) } : {}),
      places: {},
      notes,
      ...(UUID.test(id) ? { ownId: id } : {}),
    };
  }

  private online(at: (column: Column) => string, notes: string[]): Pick<IncomingContent, 'onlineAddress' | 'attendance'> {
    const onlineAddress = addressOf(at('online'), 'online address', notes);
    return { onlineAddress, attendance: onlineAddress ? (at('venue') ? 'both' : 'online') : 'in-person' };
  }

  /** What of a row no column takes: cells too many or too few, and those of columns that are left out. */
  private lost(cells: readonly string[]): string[] {
    const notes: string[] = [];
    const [has, wanted] = [cells.length, this.columns.length];
    const beyond = cells.slice(wanted).filter((cell) => cell.trim());
    if (has < wanted) notes.push(`The row has ${has} cells where the first line has ${wanted}; the last ones are empty.`);
    if (beyond.length) notes.push(`The row has more cells than the first line; left out: ${named(beyond)}.`);
    const skipped = this.columns.flatMap((column, i) => {
      const cell = (cells[i] ?? '').trim();
      return column === 'skip' && cell && !OF_OUR_OWN.has(fold(this.headers[i] ?? ''))
        ? [`${this.headers[i] ?? ''} “${cell.slice(0, 40)}”`]
        : [];
    });
    if (skipped.length)
      notes.push(`Left out: ${skipped.slice(0, 6).join(', ')}${skipped.length > 6 ? ` and ${skipped.length - 6} more` : ''}.`);
    return notes;
  }

  private when(at: (column: Column) => string, title: string, notes: string[]): When {
    const zoneText = at('zone');
    if (zoneText && !isZone(zoneText)) throw new RowError(title, `The time zone “${zoneText.slice(0, 40)}” is not known.`);
    const zone = zoneText || this.options.zone;
    const words = at('when');
    if (words) return this.inWords(this.withTimes(words, at), zone, title, notes);
    const start = this.wall(at('start-date'), at('start-time'), title);
    if (!start) throw new RowError(title, 'It does not say when it is.');
    const length = this.length(start, at('end-date'), at('end-time'), title);
    const repeats = at('repeats').replace(/^RRULE:/i, '');
    const recurrencePart: RecurrencePart = { start, length, rule: null, limit: { kind: 'open' } };
    if (repeats) Object.assign(recurrencePart, this.rule(repeats, zone, start, title));
    return { zone, parts: [recurrencePart], exdates: [], breaks: [] };
  }

  private rule(text: string, zone: string, start: PlainDateTime, title: string): Pick<RecurrencePart, 'rule' | 'limit'> {
    try {
      const read = readRuleText(text, zone, start.minute === null ? null : start.minute * 60);
      const refused = whyNotTaken([{ start, length: null, ...read }]);
      if (refused) throw new RowError(title, refused.reason);
      return read;
    } catch (error) {
      if (error instanceof RowError) throw error;
      // "Weekly" and "every Tuesday" are no rules of the standard, but words.
      const reading = this.phrase(`${text} from ${isoDay(start.day)}`, zone);
      const [only, more] = reading.recurrence?.parts ?? [];
      if (only?.rule && !more && !reading.unread.length) return { rule: only.rule, limit: only.limit };
      throw new RowError(title, `How it repeats was not understood: “${text.slice(0, 60)}”.`);
    }
  }

  /** Single dates that differ, as our own table says them: `Saturday 1 May 2027, 19:00 moves to …; … is cancelled: no ferry`. */
  private changes(text: string, notes: string[]): StoredChange[] | undefined {
    const all = text.split(/\s*;\s*|\n/).filter(Boolean);
    const found = all.map((one) => readChange(one, (words) => this.moment(words)));
    const unread = all.filter((_, i) => !found[i]);
    if (unread.length) notes.push(`Changed dates that were not understood stay as they are here: ${named(unread)}.`);
    const lost = all.filter((_, i) => found[i]?.lost);
    // A table cannot hold the other place or length: then what is here is the better.
    if (lost.length)
      notes.push(`A table does not say the other length or place of ${named(lost)}: its changed dates stay as they are here.`);
    return unread.length || lost.length ? undefined : found.flatMap((one) => one?.change ?? []);
  }

  /** One day, with a time perhaps, in words. */
  private moment(words: string): string | undefined {
    const { recurrence, problems } = this.phrase(words, 'UTC');
    const [only, more] = recurrence?.parts ?? [];
    return only && !more && !only.rule && !problems.length ? isoDateTime(only.start) : undefined;
  }

  private phrase(phrase: string, zone: string): ReturnType<typeof readPhrase> {
    const { now, weekStart, style, sunAt } = this.options;
    return readPhrase({ phrase: phrase.slice(0, 2000), now, zone, weekStart, style, sunAt });
  }

  /** Words for the days, and the hours in columns of their own. */
  private withTimes(words: string, at: (column: Column) => string): string {
    const [from, to] = [at('start-time'), at('end-time')];
    if (!from || /^all[ -]?day$/i.test(from)) return words;
    return `${words}, ${to ? `${from} to ${to}` : `at ${from}`}`;
  }

  private inWords(words: string, zone: string, title: string, notes: string[]): When {
    const { recurrence, understood, problems } = this.phrase(words, zone);
    const [problem] = problems;
    if (!recurrence && !understood) {
      const why =
        problem && (problem.kind !== 'not-understood' || problem.offers.length)
          ? sayProblem(problem)
          : `Its words for when were not understood: “${words.slice(0, 80)}”.`;
      throw new RowError(title, why);
    }
    for (const one of problems) notes.push(sayProblem(one));
    if (!recurrence) {
      notes.push('It comes without dates, with these words to mend.');
      return { open: words };
    }
    return problems.length ? { ...recurrence, asked: words } : recurrence;
  }

  /** A day with its time: together in one cell, or in two. */
  private wall(date: string, time: string, title: string): PlainDateTime | undefined {
    if (!date) return undefined;
    const parts = /^(\S+)[T ]+(\d.*)$/.exec(date);
    const day = this.day(date) ?? (parts ? this.day(parts[1] as string) : undefined);
    if (day === undefined) throw new RowError(title, `There is no date “${date.slice(0, 40)}”.`);
    const text = time || (this.day(date) === undefined ? (parts?.[2] ?? '') : '');
    return { day, minute: this.minute(text, null, title) };
  }

  private minute(text: string, after: number | null, title: string): number | null {
    if (!text || /^all[ -]?day$/i.test(text)) return null;
    const minute = readClock(text.replace(/^(\d{1,2}:\d{2}):\d{2}$/, '$1'), after);
    if (minute === undefined) throw new RowError(title, `There is no time “${text.slice(0, 40)}”.`);
    return minute;
  }

  private day(text: string): EpochDay | undefined {
    const iso = parseIsoDay(text);
    if (iso !== undefined) return iso;
    const yearFirst = /^(\d{4})[./-](\d{1,2})[./-](\d{1,2})\.?$/.exec(text);
    const match = /^(\d{1,2})[./-](\d{1,2})[./-](\d{4}|\d{2})\.?$/.exec(text);
    if (!match && !yearFirst) return this.namedDay(text);
    const [a, b] = match ? [Number(match[1]), Number(match[2])] : [0, 0];
    const [d, m] = yearFirst ? [Number(yearFirst[3]), Number(yearFirst[2])] : this.options.order === 'day-month' ? [a, b] : [b, a];
    const y = Number(yearFirst?.[1] ?? match?.[3]);
    const year = y < 100 ? 2000 + y : y;
    return dateExists(year, m, d) ? dayOf(year, m, d) : undefined;
  }

  /** `7 March 2027`, `March 7, 2027`: one day, nothing else. */
  private namedDay(text: string): EpochDay | undefined {
    if (!/\p{L}/u.test(text) || text.length > 60) return undefined;
    const { recurrence, unread, problems } = this.phrase(text, 'UTC');
    const [only, more] = recurrence?.parts ?? [];
    const plain = only && !more && !only.rule && only.start.minute === null && (only.length?.days ?? 1) === 1;
    return plain && !unread.length && !problems.length ? only.start.day : undefined;
  }

  private length(start: PlainDateTime, date: string, time: string, title: string): Length | null {
    const end = date ? this.wall(date, time, title) : undefined;
    if (start.minute === null) {
      const last = end?.day ?? start.day;
      if (last < start.day) throw new RowError(title, 'It ends before it begins.');
      return { days: last - start.day + 1, minute: null };
    }
    const minute = end?.minute ?? this.minute(time, start.minute, title);
    if (minute === null) return end && end.day > start.day ? { days: end.day - start.day, minute: start.minute } : null;
    const days = end ? end.day - start.day : minute <= start.minute ? 1 : 0;
    if (days < 0 || (days === 0 && minute <= start.minute)) throw new RowError(title, 'It ends before it begins.');
    return { days, minute };
  }
}

/** What the columns of a table are: by their names, else by looking at what stands in them. */
import Papa from 'papaparse';
import { parseIsoDay } from '../day/day';
import { readClock } from '../phrase/read/clock-times';
import { fold } from '../text/text';

interface ColumnDeclaration {
  /** as it stands over the column in our own tables */
  heading: string;
  /** as it is called where somebody chooses; the heading where it says nothing */
  words?: string;
  /** headers as people write them, folded */
  names: readonly string[];
}

/** The columns that tables have, in the order of our own. */
const DECLARED = {
  // A number in a row tells where it stands, not what it is.
  id: { heading: 'Id', words: 'Id in the table', names: ['id', 'uid', 'ref', 'reference', 'key', 'event id'] },
  title: { heading: 'Title', names: ['title', 'name', 'event', 'event name', 'event title', 'what', 'subject', 'heading'] },
  'short-title': { heading: 'Short title', names: ['short title', 'short name'] },
  when: {
    heading: 'When',
    words: 'When, in words',
    names: ['when', 'date and time', 'dates', 'dates and times', 'date time', 'schedule', 'time and date'],
  },
  'start-date': {
    heading: 'Start date',
    words: 'First day',
    names: ['start date', 'date', 'day', 'start', 'begins', 'from', 'starts', 'first day', 'begin', 'start day', 'date start'],
  },
  'start-time': {
    heading: 'Start time',
    words: 'Starts',
    names: ['start time', 'time', 'starts at', 'begin time', 'time from', 'from time', 'hour', 'time start'],
  },
  'end-date': {
    heading: 'End date',
    words: 'Last day',
    names: ['end date', 'end', 'to', 'until', 'ends', 'last day', 'finish', 'end day', 'date end'],
  },
  'end-time': { heading: 'End time', words: 'Ends', names: ['end time', 'ends at', 'finish time', 'time to', 'to time', 'time end'] },
  repeats: { heading: 'Repeats', words: 'Repeats (RRULE)', names: ['repeats', 'repeat', 'rrule', 'recurrence', 'rule'] },
  zone: { heading: 'Time zone', names: ['time zone', 'timezone', 'zone', 'tz'] },
  venue: { heading: 'Venue', names: ['venue', 'location', 'place', 'where', 'address', 'hall', 'venue name'] },
  organizer: {
    heading: 'Organizer',
    names: ['organizer', 'organiser', 'organization', 'organisation', 'group', 'host', 'by', 'who', 'club'],
  },
  categories: { heading: 'Categories', names: ['category', 'categories', 'kind', 'type', 'tags', 'topic'] },
  cost: { heading: 'Cost', names: ['cost', 'price', 'fee', 'admission', 'entry', 'tickets', 'charge'] },
  summary: { heading: 'Summary', names: ['summary', 'short description', 'teaser', 'in short', 'blurb'] },
  text: { heading: 'Text', names: ['description', 'text', 'details', 'notes', 'more', 'body'] },
  website: { heading: 'Website', names: ['website', 'url', 'link', 'web', 'site', 'web address', 'more information'] },
  online: { heading: 'Online address', names: ['online address', 'online', 'stream', 'join', 'meeting link'] },
  access: { heading: 'Access', names: ['access', 'accessibility', 'step free'] },
  contact: { heading: 'Contact', words: 'Whom to ask', names: ['contact', 'contact name', 'ask', 'contact person', 'whom to ask'] },
  phone: { heading: 'Phone', names: ['phone', 'telephone', 'tel', 'contact phone', 'phone number'] },
  mail: { heading: 'Mail', names: ['mail', 'email', 'e mail', 'contact email', 'contact mail'] },
  eventStatus: { heading: 'Status', names: ['standing', 'status', 'state'] },
  changes: { heading: 'Changed dates', names: ['changed dates', 'changes'] },
} as const satisfies Record<string, ColumnDeclaration>;

type Meaning = keyof typeof DECLARED;
/** What a column of a table can mean; `skip` is left out. */
export type Column = 'skip' | Meaning;
/** What stands over a column of our own tables. */
export type Heading = (typeof DECLARED)[Meaning]['heading'];

const MEANINGS = Object.keys(DECLARED) as Meaning[];
const declared = (column: Meaning): ColumnDeclaration => DECLARED[column];

/** What a column can mean, in the order in which somebody chooses. */
export const COLUMNS: readonly Column[] = ['skip', ...MEANINGS];
/** The headings of our own table with a row a listing. */
export const HEADINGS = MEANINGS.map((column) => DECLARED[column].heading);

/** What a column is called where somebody chooses. */
export const sayColumn = (column: Column): string =>
  column === 'skip' ? 'left out' : (declared(column).words ?? declared(column).heading);

const NAMED_DATE =
  /^(?:\p{L}{3,9}\.?,?\s+)?(?:\d{1,2}(?:st|nd|rd|th)?\s+(?:of\s+)?\p{L}{3,9}\.?|\p{L}{3,9}\.?\s+\d{1,2}(?:st|nd|rd|th)?),?\s+\d{4}$/u;
const NUMERIC_DATE = /^(\d{1,4})[./-](\d{1,2})[./-](\d{1,4})$/;

/** A cell that is a date in figures, with a time behind it perhaps. */
export function isDateCell(cell: string): boolean {
  const [date = ''] = cell.split(/[T ]/);
  return parseIsoDay(date) !== undefined || NUMERIC_DATE.test(date) || NAMED_DATE.test(cell);
}

const isTimeCell = (cell: string): boolean => /\d|noon|midnight/i.test(cell) && /[:.hapn]/i.test(cell) && readClock(cell) !== undefined;

/** Most of the values that are there. */
function mostly(cells: readonly string[], test: (cell: string) => boolean): boolean {
  const given = cells.filter(Boolean);
  return given.length > 0 && given.filter(test).length / given.length >= 0.7;
}

/** What a column is by its values alone; undefined when they do not say. */
function byValues(cells: readonly string[]): Column | undefined {
  if (mostly(cells, (cell) => /^[^\s@]+@[^\s@]+\.[^\s@]+$/.test(cell))) return 'mail';
  if (mostly(cells, (cell) => /^https?:\/\/\S+$/i.test(cell))) return 'website';
  if (mostly(cells, isDateCell)) return 'start-date';
  if (mostly(cells, isTimeCell)) return 'start-time';
  if (mostly(cells, (cell) => /^\+?[\d ()/-]{6,}$/.test(cell))) return 'phone';
  if (mostly(cells, (cell) => /^(free|[$€£]\s?\d+([.,]\d\d)?|\d+[.,]\d\d)$/i.test(cell))) return 'cost';
  return undefined;
}

const DATED: Partial<Record<Column, Column>> = { 'start-date': 'end-date', 'start-time': 'end-time' };

/** Each column's meaning, once each: first by name, then, where a name says nothing, by values. `rows` hold a sample. */
export function columnsOf(headers: readonly string[], rows: readonly (readonly string[])[]): Column[] {
  const cellsOf = (i: number): string[] => rows.map((row) => (row[i] ?? '').trim());
  const taken = new Set<Column>();
  const take = (column: Column | undefined): Column | undefined => {
    const free = column && taken.has(column) ? DATED[column] : column;
    if (!free || taken.has(free)) return undefined;
    taken.add(free);
    return free;
  };
  const named = headers.map((header, i) => take(byName(header, cellsOf(i))));
  const all = named.map((column, i): Column => column ?? take(byValues(cellsOf(i))) ?? 'skip');
  // A table without a title has one in the first column of words.
  if (!taken.has('title')) {
    const words = all.findIndex((column, i) => column === 'skip' && mostly(cellsOf(i), (cell) => /\p{L}{3}/u.test(cell)));
    if (words >= 0) all[words] = 'title';
  }
  return all;
}

/** A column named "date" in which people wrote "Tuesdays 7pm" holds words. */
function byName(header: string, cells: readonly string[]): Column | undefined {
  const folded = fold(header)
    .replace(/[^\p{L}\d]+/gu, ' ')
    .trim();
  const found = MEANINGS.find((column) => declared(column).names.includes(folded));
  if (found === 'start-date' && cells.some(Boolean) && !mostly(cells, isDateCell)) {
    return mostly(cells, isTimeCell) ? 'start-time' : 'when';
  }
  if (found === 'end-date' && mostly(cells, isTimeCell) && !mostly(cells, isDateCell)) return 'end-time';
  return found;
}

/** How dates in figures are written: 3/4 as the third of April or the fourth of March. */
export type DateOrder = 'day-month' | 'month-day';

/** How dates in figures are written, from all of them; undefined when none tells (3/4 may be either). */
export function orderOf(cells: readonly string[]): DateOrder | undefined {
  let open = false;
  for (const cell of cells) {
    const match = /^(\d{1,2})[./-](\d{1,2})[./-](\d{2,4})(?!\d)/.exec(cell.trim());
    if (!match) continue;
    if (Number(match[1]) > 12) return 'day-month';
    if (Number(match[2]) > 12) return 'month-day';
    open ||= match[1] !== match[2];
  }
  return open ? undefined : 'day-month';
}

/** Columns are parted by looking at so many rows. */
const LOOKED_AT_ROWS = 60;
const SEPARATORS = [',', ';', '\t', '|'];
/** Separators are found out by so much of the file. */
const LOOKED_AT = 40_000;

/** What parts the columns of a table: that by which the most rows have as many as the first has. */
export function separatorOf(text: string): string {
  const start = text.slice(0, LOOKED_AT);
  const score = (delimiter: string): number => {
    const { data } = Papa.parse<string[]>(start, { delimiter, preview: LOOKED_AT_ROWS, skipEmptyLines: 'greedy' });
    const columns = data[0]?.length ?? 0;
    if (columns < 2) return 0;
    return (data.filter((row) => row.length === columns).length / data.length) * 10 + Math.min(columns, 9) / 10;
  };
  return [...SEPARATORS].sort((a, b) => score(b) - score(a))[0] as string;
}

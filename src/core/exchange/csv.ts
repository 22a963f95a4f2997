/** Tables out: a row a listing, or a row a date. Spreadsheets open them, and our own reader reads them again. Values only. */
import Papa from 'papaparse';
import { type EpochDay, isoDay } from '../day/day';
import { isoTime } from '../day/plain-date-time';
import type { EventStatus } from '../recurrence/model';
import { type Heading, HEADINGS } from './csv-columns';

/** What a spreadsheet would take for a formula begins with an apostrophe: it stays text (CWE-1236). */
const FORMULA = /^[=+\-@\t\r]/;

/** The columns of the table with a row a listing, in order; where it stands and its page are ours to say, and no file changes them. */
export const CSV_COLUMNS: readonly CsvColumn[] = [...HEADINGS, 'Stage', 'Page'];
/** One of {@link CSV_COLUMNS}. */
export type CsvColumn = Heading | 'Stage' | 'Page';

/** The columns of the table with a row a date, in order. */
export const CSV_DATE_COLUMNS = [
  'Id',
  'Title',
  'Start date',
  'Start time',
  'End date',
  'End time',
  'Time zone',
  'Venue',
  'Town',
  'Organizer',
  'Categories',
  'Cost',
  'Status',
  'Note',
  'Page',
] as const;
/** One of {@link CSV_DATE_COLUMNS}. */
export type CsvDateColumn = (typeof CSV_DATE_COLUMNS)[number];

/** A date as its row says it. */
export interface CsvDate {
  id: string;
  title: string;
  startDay: EpochDay;
  startMinute: number | null;
  /** exclusive; null = no end is given */
  endDay: EpochDay | null;
  endMinute: number | null;
  zone: string;
  venues: readonly { name: string; town: string }[];
  organizer: string;
  categories: string;
  cost: string;
  eventStatus: EventStatus;
  note: string;
  page: string;
}

/** A date's row; a whole day ends on its last day. */
export function csvDateRow(date: CsvDate): Record<CsvDateColumn, string> {
  const { startDay, startMinute, endDay, endMinute, venues } = date;
  const lastDay = endDay === null ? startDay : endMinute === null ? endDay - 1 : endDay;
  return {
    Id: date.id,
    Title: date.title,
    'Start date': isoDay(startDay),
    'Start time': startMinute === null ? '' : isoTime(startMinute),
    'End date': isoDay(lastDay),
    'End time': endMinute === null ? '' : isoTime(endMinute),
    'Time zone': date.zone,
    Venue: venues.map(({ name }) => name).join('; '),
    Town: [...new Set(venues.map(({ town }) => town).filter(Boolean))].join('; '),
    Organizer: date.organizer,
    Categories: date.categories,
    Cost: date.cost,
    Status: date.eventStatus.replace('-', ' '),
    Note: date.note,
    Page: date.page,
  };
}

/** The whole file, with a byte order mark, by which spreadsheets know UTF-8, and CRLF line ends (RFC 4180). */
export function writeCsv<T extends string>(columns: readonly T[], rows: readonly Record<T, string>[]): string {
  const safe = (text: string): string => (FORMULA.test(text) ? `'${text}` : text);
  const data = rows.map((row) => columns.map((column) => safe(row[column])));
  return `\uFEFF${Papa.unparse({ fields: [...columns], data }, { newline: '\r\n' })}\r\n`;
}

/** What a worker thread computes for the server: long reading and expanding, pictures; handed out in parts. No database, no clock. */
import type { EpochDay } from '@/core/day/day';
import { fromIcal, type Incoming, type IncomingFile } from '@/core/exchange/incoming';
import { readCsv } from '@/core/exchange/read-csv';
import { FileError, readIcal } from '@/core/exchange/read-ical';
import { readJsonFile } from '@/core/exchange/read-json';
import type { ListingContent } from '@/core/listing/content';
import { emptyContent } from '@/core/listing/fields';
import type { Style } from '@/core/phrase/format';
import type { ImportKind, ImportSummary } from '../db/schema';
import { type IndexRow, indexRows } from '../dates/date-index';
import { contentInput } from '../listings/input';
import type { SiteSettings } from '../site/settings';
import { type HolidayPart, type HolidayTask, performHolidays } from './holiday-tasks';
import { type AddressPart, type AddressTask, performAddresses } from './address-tasks';
import { performWorld, type WorldPart, type WorldTask } from './world-tasks';
import { type CutTask, performPicture, type PicturePart, type TakeTask } from './picture-tasks';
import { serverWords } from '@/words/desk';

const w = serverWords.workerTasks;

/** A file to be read. */
export interface ReadTask {
  task: 'read';
  kind: ImportKind;
  text: string;
  host: string;
  siteZone: string;
  zones: Record<string, string>;
  columns: string[] | undefined;
  order: 'day-month' | 'month-day' | undefined;
  now: { day: EpochDay; minute: number };
  style: Style;
  firstWeekday: number;
  currency: string;
  /** where the sun rises and sets */
  sunAt: { lat: number; lng: number } | undefined;
}

/** Listings whose dates are to be worked out. */
export interface ExpandTask {
  task: 'expand';
  listings: { listingId: string; content: ListingContent; isPublic: boolean }[];
  settings: SiteSettings;
  horizon: EpochDay;
}

/** What the thread can be asked for. */
export type Task = ReadTask | ExpandTask | TakeTask | CutTask | WorldTask | HolidayTask | AddressTask;

/** Parts of an answer: listings of a file, rows of the date index, and at the end what else there is to say. */
export type Part =
  | { part: 'items'; items: Incoming[] }
  | { part: 'rows'; rows: { listingId: string; rows: IndexRow[] }[] }
  | { part: 'end'; end: Omit<IncomingFile, 'items'> & { table?: ImportSummary['table'] } }
  /** the file is none of its kind */
  | { part: 'refused'; reason: string }
  | PicturePart
  | WorldPart
  | HolidayPart
  | AddressPart;

/** So many listings in one part. */
const PART = 200;

/** A task's answer, in parts. */
export function perform(task: Task): Iterable<Part> | AsyncIterable<Part> {
  if (task.task === 'take-picture' || task.task === 'cut-picture') return performPicture(task);
  if (task.task === 'read' || task.task === 'expand') return performReading(task);
  if (task.task === 'addresses') return performAddresses(task);
  if (task.task === 'country-year' || task.task === 'regions') return [performHolidays(task)];
  return [performWorld(task)];
}

function* performReading(task: ReadTask | ExpandTask): Generator<Part> {
  if (task.task === 'expand') {
    const { settings, horizon } = task;
    for (let at = 0; at < task.listings.length; at += PART) {
      const some = task.listings.slice(at, at + PART);
      yield { part: 'rows', rows: some.map((one) => ({ listingId: one.listingId, rows: indexRows({ ...one, settings, horizon }) })) };
    }
    return;
  }
  try {
    const { items: all, unreadable, ...end } = readFile(task);
    const reasons = all.map(whyImpossible);
    const items = all.filter((_, i) => !reasons[i]);
    const impossible = all.flatMap(({ line, content }, i) =>
      reasons[i] ? [{ line, title: content.title ?? '', reason: reasons[i] }] : [],
    );
    for (let at = 0; at < items.length; at += PART) yield { part: 'items', items: items.slice(at, at + PART) };
    yield { part: 'end', end: { ...end, unreadable: [...unreadable, ...impossible].sort((a, b) => a.line - b.line) } };
  } catch (error) {
    if (!(error instanceof FileError)) throw error;
    yield { part: 'refused', reason: error.message };
  }
}

/** Why no listing could hold what a file says; undefined when one can. */
function whyImpossible(item: Incoming): string | undefined {
  const result = contentInput.safeParse({ ...emptyContent(), ...item.content });
  if (result.success) return undefined;
  const [issue] = result.error.issues;
  return `${issue?.path.length ? `${issue.path.join('.')}: ` : ''}${issue?.message ?? w.itCannotBeKept()}`;
}

function readFile(task: ReadTask): IncomingFile & { table?: ImportSummary['table'] } {
  const { kind, text, host, siteZone, columns, order } = task;
  if (kind === 'json') return readJsonFile(text);
  if (kind === 'csv') {
    const { now, style, firstWeekday, currency, sunAt } = task;
    return readCsv(text, { now, zone: siteZone, style, weekStart: firstWeekday, currency, columns, order, sunAt });
  }
  const candidates = Intl.supportedValuesOf('timeZone');
  const file = readIcal(text, { siteZone, chosen: new Map(Object.entries(task.zones)), candidates });
  return { items: file.events.map((event) => fromIcal(event, host)), unreadable: file.unreadable, unknownZones: file.unknownZones };
}

/**
 * iCalendar out: RFC 5545 with REFRESH-INTERVAL, NAME and IMAGE-free RFC 7986 parts. Values only: no clock, no files.
 * A part with a rule is a VEVENT; single dates are RDATEs of the first one, or the DTSTART where there is no rule.
 */
import { ymdOf, type EpochDay } from '../day/day';
import { isoTime, isoDateTime, type PlainDateTime } from '../day/plain-date-time';
import { isoInstant, MS_PER_MINUTE, transitionsOf } from '../day/zone';
import { byTheClock } from '../recurrence/by-the-clock';
import { endOf, expand, startsBetween } from '../recurrence/expand';
import type { DateChange, Recurrence, EventStatus, RecurrencePart } from '../recurrence/model';
import { ruleText } from '../recurrence/rule-text';

/** A place as a calendar file has it: its words, and its position in degrees. */
export interface IcalPlace {
  location: string;
  point: { lat: number; lng: number } | undefined;
}

/** What else a listing says: written by the standard's words where it has them, else in properties of our own (docs/formats.md). */
export interface IcalMore {
  contact: string;
  onlineAddress: string;
  cost: string;
  access: string;
  note: string;
  website: string;
  /** what its page calls readers to do, and where: `book https://…` */
  call: string;
}

/** A listing as a calendar file takes it. */
export interface IcalListing {
  uid: string;
  sequence: number;
  /** instants in milliseconds */
  created: number;
  changed: number;
  title: string;
  description: string;
  url: string;
  location: string;
  point?: { lat: number; lng: number } | undefined;
  organizer?: { name: string; mail: string } | undefined;
  categories: string[];
  /** what the standard has words for, and what it has not; empty or absent = not said */
  more?: IcalMore | undefined;
  eventStatus: EventStatus;
  recurrence: Recurrence;
  changes: DateChange[];
  /** where a date is that is elsewhere, by its venue's id */
  placeOf?: ((venueId: string) => IcalPlace | undefined) | undefined;
  /** only this date, by its original start */
  only?: PlainDateTime | undefined;
}

/** What is said of the calendar as a whole. */
export interface IcalCalendar {
  name: string;
  url: string;
  listings: IcalListing[];
  /** dates beyond this day are not looked at for left-out dates and changes */
  horizon: EpochDay;
}

type Line = string;

/** A calendar file made listing by listing, so that a long one can be made in turns. Folded at 75 octets, with CRLF line ends. */
export class IcalFile {
  readonly #zones = new Map<string, { from: number; to: number }>();
  readonly #events: string[] = [];

  /** @param horizon dates beyond this day are not looked at for left-out dates and changes */
  constructor(private readonly horizon: EpochDay) {}

  add(listing: IcalListing): void {
    this.#events.push(folded(eventsOf(listing, this.horizon)));
    noteZone(this.#zones, listing.recurrence, this.horizon);
  }

  /** The whole file, with what is said of the calendar. */
  text({ name, url }: Pick<IcalCalendar, 'name' | 'url'>): string {
    const head = [
      'BEGIN:VCALENDAR',
      'VERSION:2.0',
      'PRODID:-//Plain Almanac//Calendar//EN',
      'CALSCALE:GREGORIAN',
      `NAME:${escapeText(name)}`,
      `URL:${url}`,
      'REFRESH-INTERVAL;VALUE=DURATION:PT6H',
      ...[...this.#zones].sort(([a], [b]) => (a < b ? -1 : 1)).flatMap(([zone, years]) => zoneLines(zone, years.from, years.to)),
    ];
    return folded(head) + this.#events.join('') + folded(['END:VCALENDAR']);
  }
}

const folded = (lines: readonly Line[]): string => lines.map((line) => `${fold(line)}\r\n`).join('');

/** The whole file of a few listings at once. */
export function writeIcal({ listings, horizon, ...calendar }: IcalCalendar): string {
  const file = new IcalFile(horizon);
  for (const listing of listings) file.add(listing);
  return file.text(calendar);
}

function noteZone(zones: Map<string, { from: number; to: number }>, { zone, parts }: Recurrence, horizon: EpochDay): void {
  const timed = parts.filter((s) => s.start.minute !== null);
  if (!timed.length || zone === 'UTC') return;
  const from = Math.min(...timed.map((s) => ymdOf(s.start.day).year));
  const known = zones.get(zone);
  const to = ymdOf(horizon).year + 1;
  zones.set(zone, { from: Math.min(known?.from ?? from, from), to: Math.max(known?.to ?? to, to) });
}

/** Each change of the clocks as an observance of its own: longer than rules, but right for every zone. */
function zoneLines(zone: string, from: number, to: number): Line[] {
  const lines = ['BEGIN:VTIMEZONE', `TZID:${zone}`];
  const all = [];
  for (let year = from - 1; year <= to; year++) all.push(...transitionsOf(zone, year));
  const observance = (kind: string, local: string, before: number, after: number): Line[] => [
    `BEGIN:${kind}`,
    `DTSTART:${local}`,
    `TZOFFSETFROM:${utcOffset(before)}`,
    `TZOFFSETTO:${utcOffset(after)}`,
    `END:${kind}`,
  ];
  const first = all[0];
  if (!first) {
    const offset = transitionOffset(zone, from);
    lines.push(...observance('STANDARD', `${from - 1}0101T000000`, offset, offset));
  }
  for (const { at, before, after } of all) {
    const local = isoInstant(at + before).replaceAll(/[-:Z]/g, '');
    lines.push(...observance(after > before ? 'DAYLIGHT' : 'STANDARD', local, before, after));
  }
  lines.push('END:VTIMEZONE');
  return lines;
}

function transitionOffset(zone: string, year: number): number {
  for (let y = year; y > year - 80; y--) {
    const last = transitionsOf(zone, y).at(-1);
    if (last) return last.after;
  }
  return 0;
}

function utcOffset(offset: number): string {
  return `${offset < 0 ? '-' : '+'}${isoTime(Math.round(Math.abs(offset) / MS_PER_MINUTE)).replace(':', '')}`;
}

function eventsOf(listing: IcalListing, horizon: EpochDay): Line[] {
  if (listing.only) return onlyEvent(listing, listing.only);
  // The standard has no sun: dates that begin by it are written one by one.
  const recurrence = byTheClock(listing.recurrence, horizon);
  const ruled = recurrence.parts.filter((s) => s.rule);
  const extras = recurrence.parts.filter((s) => !s.rule).sort((a, b) => a.start.day - b.start.day);
  // Dates without a rule are an event each, with its new time or its status where it is moved or called off: many readers know neither a set of
  // dates without a rule, nor a change without one.
  if (!ruled.length)
    return extras
      .filter(
        ({ start }) =>
          !recurrence.exdates.some((out) => isoDateTime(out) === isoDateTime(start)) &&
          !recurrence.breaks.some((b) => start.day >= b.from && start.day <= b.to),
      )
      .flatMap(({ start }, index) => onlyEvent(listing, start, index === 0 ? listing.uid : uidAt(listing.uid, index), index > 0));
  const masters = ruled;
  const lines: Line[] = [];
  masters.forEach((master, index) => {
    const uid = index === 0 ? listing.uid : uidAt(listing.uid, index);
    lines.push(
      ...masterEvent({ listing: { ...listing, recurrence }, master, uid, extras: index === 0 ? extras : [], first: index === 0, horizon }),
    );
  });
  return lines;
}

function dateValue(name: string, wall: PlainDateTime, zone: string): Line {
  if (wall.minute === null) return `${name};VALUE=DATE:${compact(wall)}`;
  return zone === 'UTC' ? `${name}:${compact(wall)}Z` : `${name};TZID=${zone}:${compact(wall)}`;
}

function compact(wall: PlainDateTime): string {
  const text = isoDateTime(wall).replaceAll(/[-:]/g, '');
  return wall.minute === null ? text : `${text}00`;
}

interface MasterInput {
  listing: IcalListing;
  master: RecurrencePart;
  uid: string;
  extras: RecurrencePart[];
  first: boolean;
  horizon: EpochDay;
}

function masterEvent({ listing, master, uid, extras, first, horizon }: MasterInput): Line[] {
  const { recurrence, changes } = listing;
  const { zone } = recurrence;
  const own: Recurrence = { ...recurrence, parts: [master, ...extras], exdates: [], breaks: [] };
  const written = withoutSeasons(master, zone, horizon);
  const all = startsBetween({ ...own, parts: [written, ...extras] }, master.start.day - 40_000, horizon).map((s) => s.wall);
  const kept = new Set(
    startsBetween({ ...own, exdates: recurrence.exdates, breaks: recurrence.breaks }, master.start.day - 40_000, horizon).map((s) =>
      isoDateTime(s.wall),
    ),
  );
  // A rule without its own first start still begins there; readers of the file must not show that date.
  const gone = all.filter((wall) => !kept.has(isoDateTime(wall)));
  const lines = ['BEGIN:VEVENT', `UID:${uid}`, ...commonLines(listing)];
  lines.push(dateValue('DTSTART', master.start, zone), ...endLines(master.start, master, zone));
  const rule = ruleText(written, zone);
  if (rule) lines.push(`RRULE:${rule}`);
  // DTSTART counts without a rule too (RFC 5545 3.8.5.2), but not every reader of RDATE alone knows it.
  if (!rule && extras.length) lines.push(dateValue('RDATE', master.start, zone));
  for (const extra of extras) lines.push(dateValue('RDATE', extra.start, zone));
  for (const wall of gone) lines.push(dateValue('EXDATE', wall, zone));
  if (!first) lines.push(`RELATED-TO;RELTYPE=SIBLING:${listing.uid}`);
  lines.push('END:VEVENT');
  // An extra date is a plain RDATE, for periods are read by few, and an event of its own too: with its own length, and for readers that know
  // RECURRENCE-ID but no RDATE.
  const changed = new Set(changes.map(({ original }) => isoDateTime(original)));
  const plain = extras.filter(({ start }) => !changed.has(isoDateTime(start))).map(({ start }) => unchanged(start));
  for (const change of [...plain, ...changes]) {
    if (!kept.has(isoDateTime(change.original))) continue;
    lines.push(...changedEvent(listing, uid, { ...own, parts: [master, ...extras] }, change));
  }
  return lines;
}

/**
 * The standard has no seasons: the rule is written without them, to its last date before the horizon, and what lies
 * between the seasons is left out date by date.
 */
function withoutSeasons(recurrencePart: RecurrencePart, zone: string, horizon: EpochDay): RecurrencePart {
  const { rule } = recurrencePart;
  if (!rule?.seasons) return recurrencePart;
  const { seasons: _, ...bare } = rule;
  const last = startsBetween({ zone, parts: [recurrencePart], exdates: [], breaks: [] }, recurrencePart.start.day, horizon).at(-1);
  return { ...recurrencePart, rule: bare, limit: { kind: 'until', day: last?.wall.day ?? recurrencePart.start.day } };
}

function endLines(start: PlainDateTime, recurrencePart: RecurrencePart, zone: string): Line[] {
  const end = endOf(start, recurrencePart.length);
  return end ? [dateValue('DTEND', end, zone)] : [];
}

/** A date as it stands, to be written as a change of it is. */
const unchanged = (original: PlainDateTime): DateChange => ({ original, movedTo: null, length: null, eventStatus: null, note: '' });

function changedEvent(listing: IcalListing, uid: string, own: Recurrence, change: DateChange): Line[] {
  const [date] = expand({ ...own, exdates: [], breaks: [] }, [change], change.original.day, change.original.day).filter(
    (o) => isoDateTime(o.original) === isoDateTime(change.original),
  );
  if (!date) return [];
  const eventStatus = change.eventStatus ?? listing.eventStatus;
  const lines = ['BEGIN:VEVENT', `UID:${uid}`, dateValue('RECURRENCE-ID', change.original, own.zone)];
  lines.push(
    ...commonLines({
      ...placedAt(listing, date.venueId),
      eventStatus,
      description: [change.note, listing.description].filter(Boolean).join('\n\n'),
    }),
  );
  lines.push(dateValue('DTSTART', date.start, own.zone));
  if (date.end) lines.push(dateValue('DTEND', date.end, own.zone));
  lines.push('END:VEVENT');
  return lines;
}

function placedAt(listing: IcalListing, venueId: string | null): IcalListing {
  const place = venueId ? listing.placeOf?.(venueId) : undefined;
  return place ? { ...listing, ...place } : listing;
}

/** The UID of a listing's second event, and those behind it. */
const uidAt = (uid: string, index: number): string => uid.replace('@', `-${index + 1}@`);

function onlyEvent(listing: IcalListing, only: PlainDateTime, whole?: string, sibling = false): Line[] {
  const { recurrence, changes } = listing;
  const date = expand(recurrence, changes, only.day, only.day).find((o) => isoDateTime(o.original) === isoDateTime(only));
  if (!date) return [];
  const eventStatus = date.eventStatus ?? listing.eventStatus;
  const uid = whole ?? listing.uid.replace('@', `-${compact(only)}@`);
  const lines = [
    'BEGIN:VEVENT',
    `UID:${uid}`,
    ...commonLines({
      ...placedAt(listing, date.venueId),
      eventStatus,
      description: [date.note, listing.description].filter(Boolean).join('\n\n'),
    }),
  ];
  lines.push(dateValue('DTSTART', date.start, recurrence.zone));
  if (date.end) lines.push(dateValue('DTEND', date.end, recurrence.zone));
  if (sibling) lines.push(`RELATED-TO;RELTYPE=SIBLING:${listing.uid}`);
  lines.push('END:VEVENT');
  return lines;
}

function commonLines(listing: IcalListing): Line[] {
  const stamp = (ms: number): string => isoInstant(ms).replaceAll(/[-:]/g, '');
  const lines = [
    `DTSTAMP:${stamp(listing.changed)}`,
    `CREATED:${stamp(listing.created)}`,
    `LAST-MODIFIED:${stamp(listing.changed)}`,
    `SEQUENCE:${listing.sequence}`,
    `SUMMARY:${escapeText(listing.title)}`,
    `STATUS:${listing.eventStatus === 'cancelled' ? 'CANCELLED' : listing.eventStatus === 'postponed' ? 'TENTATIVE' : 'CONFIRMED'}`,
    ...(listing.url ? [`URL:${listing.url}`] : []),
  ];
  // The standard has no word for these; our own reader has, and others pass the property over.
  if (!['going-ahead', 'cancelled'].includes(listing.eventStatus))
    lines.push(`X-PLAIN-ALMANAC-STATUS:${listing.eventStatus.toUpperCase()}`);
  if (listing.description) lines.push(`DESCRIPTION:${escapeText(listing.description)}`);
  if (listing.location) lines.push(`LOCATION:${escapeText(listing.location)}`);
  if (listing.point) lines.push(`GEO:${listing.point.lat.toFixed(6)};${listing.point.lng.toFixed(6)}`);
  if (listing.organizer?.mail) lines.push(`ORGANIZER;CN=${parameter(listing.organizer.name)}:mailto:${listing.organizer.mail}`);
  lines.push(...moreLines(listing.more));
  if (listing.categories.length) lines.push(`CATEGORIES:${listing.categories.map(escapeText).join(',')}`);
  return lines;
}

/** CONTACT (RFC 5545 3.8.4.2), CONFERENCE (RFC 7986 5.11), and what neither has. */
function moreLines(more: IcalMore | undefined): Line[] {
  if (!more) return [];
  const text = (name: string, value: string): Line[] => (value ? [`${name}:${escapeText(value)}`] : []);
  return [
    ...text('CONTACT', more.contact),
    ...(more.onlineAddress ? [`CONFERENCE;VALUE=URI;FEATURE=VIDEO:${more.onlineAddress}`] : []),
    ...text('X-PLAIN-ALMANAC-COST', more.cost),
    ...text('X-PLAIN-ALMANAC-ACCESS', more.access),
    ...text('X-PLAIN-ALMANAC-NOTE', more.note),
    ...text('X-PLAIN-ALMANAC-WEBSITE', more.website),
    ...text('X-PLAIN-ALMANAC-CALL', more.call),
  ];
}

/** TEXT, RFC 5545 3.3.11; control characters are not allowed and dropped. */
export function escapeText(text: string): string {
  return (
    text
      .replace(/\r\n?/g, '\n')
      // biome-ignore lint/suspicious/noControlCharactersInRegex: they are what must go
      .replace(/[\u0000-\u0009\u000b-\u001f\u007f]/g, ' ')
      .replace(/[\\;,]/g, (c) => `\\${c}`)
      .replace(/\n/g, '\\n')
  );
}

/** A quoted parameter value; it cannot hold quotes or control characters (RFC 5545 3.2), and line ends are ^n (RFC 6868). */
function parameter(text: string): string {
  // biome-ignore lint/suspicious/noControlCharactersInRegex: they are what must go
  const plain = text.replace(/[\u0000-\u001f\u007f]/g, ' ');
  return `"${plain.replace(/\^/g, '^^').replace(/"/g, "^'")}"`;
}

/** How many octets a character has in UTF-8; a half of a pair by itself is written as U+FFFD, which has three. */
function octetsOf(character: string): number {
  const point = character.codePointAt(0) ?? 0;
  if (point < 0x80) return 1;
  if (point < 0x800) return 2;
  return point < 0x10000 ? 3 : 4;
}

/** Folds a content line at 75 octets without cutting a character (RFC 5545 3.1). */
export function fold(line: string): string {
  // No character has more octets than three a unit of the string.
  if (line.length <= 25) return line;
  const parts: string[] = [];
  let from = 0;
  let at = 0;
  let octets = 0;
  for (const character of line) {
    const size = octetsOf(character);
    // A continuation line begins with a space, which counts.
    if (octets + size > (parts.length ? 74 : 75)) {
      parts.push(line.slice(from, at));
      from = at;
      octets = 0;
    }
    at += character.length;
    octets += size;
  }
  if (!parts.length) return line;
  parts.push(line.slice(from));
  return parts.join('\r\n ');
}

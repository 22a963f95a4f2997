/** One event of a calendar file as its properties say it, before its rules and its zone are made out. */
import ICAL from 'ical.js';
import { parseIsoDay, ymdOf } from '../day/day';
import { instantToDateTime, MS_PER_MINUTE, dateTimeToInstant } from '../day/zone';
import { isoDateTime } from '../day/plain-date-time';
import { fold } from '../text/text';
import { parseIsoDateTime, type PlainDateTime } from '../day/plain-date-time';
import { EVENT_STATUSES, type EventStatus } from '../recurrence/model';
import type { IcalMore } from './ical';
import type { ReadEvent, ReadOptions } from './read-event';
import { offsetByRules, zoneOf } from './zones';

/** The lines of one component of a calendar file, and at which line it begins. */
export interface Block {
  kind: 'VEVENT' | 'VTIMEZONE';
  line: number;
  lines: string[];
}

/** What stands for a UID where there is none: it names its own source, and never collides with a UID. */
const noUid = (title: string, start: RawTime, place: string): string =>
  `${NO_UID}${fold(title)}|${isoDateTime(start.wall)}|${fold(place)}`.slice(0, 300);
/** Begins the UID of an event that came without one; a content's hash follows. */
export const NO_UID = 'no-uid:';

/** Lines of a component as a calendar of their own, for the parser (RFC 5545, 3.4). */
export const wrapped = (lines: readonly string[]): string => ['BEGIN:VCALENDAR', ...lines, 'END:VCALENDAR'].join('\r\n');

/** The zones that a calendar file names, each known by its name or by its rules. */
export class ZoneBook {
  readonly unknown = new Set<string>();
  private readonly rules = new Map<string, string>();
  private readonly found = new Map<string, string | undefined>();
  constructor(
    blocks: readonly Block[],
    private readonly options: ReadOptions,
  ) {
    for (const { kind, lines } of blocks) {
      if (kind !== 'VTIMEZONE') continue;
      const name = /^TZID[^:]*:(.*)$/im.exec(lines.join('\n'))?.[1]?.trim();
      if (name) this.rules.set(name.replace(/^"|"$/g, ''), lines.join('\r\n'));
    }
  }
  get siteZone(): string {
    return this.options.siteZone;
  }
  /** The file's own rules of a zone that no name and no other zone fits. */
  rulesOf(name: string): string | undefined {
    return this.rules.get(name);
  }
  /** The IANA zone of a name; undefined where neither its name nor its rules tell. */
  zone(name: string, year: number): string | undefined {
    const chosen = this.options.chosen.get(name);
    if (chosen) return chosen;
    if (!this.found.has(name)) {
      const { siteZone, candidates } = this.options;
      this.found.set(name, zoneOf({ name, rules: this.rules.get(name), year, candidates: [siteZone, ...candidates] }));
    }
    return this.found.get(name);
  }
}

/** A point in time as the file writes it: `zone` undefined = floating. */
export interface RawTime {
  wall: PlainDateTime;
  zone: string | undefined;
  seconds: number;
}

/** One VEVENT as it stands in the file, before its overrides are brought together. */
export interface RawEvent extends Omit<ReadEvent, 'recurrence' | 'changes' | 'places'> {
  sibling: string | undefined;
  recurrenceId: RawTime | undefined;
  start: RawTime;
  end: RawTime | undefined;
  minutes: number | undefined;
  rules: string[];
  rdates: { start: RawTime; end: RawTime | undefined; minutes: number | undefined }[];
  exdates: RawTime[];
  zone: string;
}

/** Reads one VEVENT. Throws a {@link FileError} where it cannot be one. */
export function rawOf(block: Block, zones: ZoneBook): RawEvent {
  const notes: string[] = [];
  const root = new ICAL.Component(ICAL.parse(wrapped(readableLines(block, notes))) as unknown as never[]);
  const component = root.getFirstSubcomponent('vevent');
  if (!component) throw new Error('it has no contents');
  const text = (name: string): string => String(component.getFirstPropertyValue(name) ?? '').trim();
  const all = (name: string) => component.getAllProperties(name);
  const startProperty = component.getFirstProperty('dtstart');
  if (!startProperty) throw new Error('it has no DTSTART, so nothing says when it is');
  const time = (property: ICAL.Property): RawTime[] => timesOf(property, zones, notes);
  const [start] = time(startProperty);
  if (!start) throw new Error('its DTSTART is empty');
  const endProperty = component.getFirstProperty('dtend');
  const duration = component.getFirstProperty('duration');
  const rules = rulesIn(block);
  if (start.seconds) notes.push('The seconds of its start are dropped.');
  if (all('exrule').length) notes.push('EXRULE is no longer part of the standard and is left aside.');
  const recurrenceIdProperty = component.getFirstProperty('recurrence-id');
  if (recurrenceIdProperty?.getParameter('range'))
    notes.push('The file changes this and all later dates; only the one date is changed here. Check those behind it.');
  noteLosses(component, notes);
  const described = descriptionOf(component, notes);
  const uid = text('uid');
  return {
    uid: uid || noUid(text('summary'), start, text('location')),
    line: block.line,
    sequence: Math.max(0, Math.floor(Number(component.getFirstPropertyValue('sequence') ?? 0)) || 0),
    title: cutTo(160, 'title', text('summary').replace(/\s+/g, ' '), notes),
    ...described,
    location: cutTo(300, 'place', text('location').replace(/\s+/g, ' '), notes),
    point: pointOf(component),
    organizer: organizerOf(component),
    categories: [...new Set(all('categories').flatMap((property) => property.getValues().map((value) => String(value).trim())))].filter(
      Boolean,
    ),
    url: /^https?:\/\//i.test(text('url')) && text('url').length <= 500 ? text('url') : '',
    more: moreOf(component),
    eventStatus: eventStatusOf(component),
    attachments: attachmentsOf(component),
    notes,
    sibling: siblingOf(component),
    recurrenceId: recurrenceIdProperty ? time(recurrenceIdProperty)[0] : undefined,
    start,
    end: endProperty ? time(endProperty)[0] : undefined,
    minutes: duration ? minutesOf(String(duration.getFirstValue())) : undefined,
    rules,
    rdates: all('rdate').flatMap((property) => rdatesOf(property, zones, notes)),
    exdates: all('exdate').flatMap(time),
    // A rule in UTC stays there; anything else without a zone is the site's.
    zone: start.zone === undefined || (start.zone === 'UTC' && !rules.length) ? zones.siteZone : start.zone,
  };
}

/** A text as far as a listing can hold it; what is cut is said. */
function cutTo(most: number, what: string, text: string, notes: string[]): string {
  if (text.length <= most) return text;
  notes.push(
    `Its ${what} is longer than ${most.toLocaleString('en')} characters; the end of it, from “${text.slice(most - 12, most).trim()}” on, is left out.`,
  );
  return text.slice(0, most);
}

/** A property that the parser does not know comes as it is written (RFC 5545 3.3.11). */
const unescaped = (text: string): string => text.replace(/\\([\\;,nN])/g, (_, c: string) => (c === 'n' || c === 'N' ? '\n' : c));

/** Lines that can be parsed. One without a colon costs itself, not its event; rules are read by our own reader. */
function readableLines({ lines }: Block, notes: string[]): string[] {
  const whole: string[] = [];
  for (const line of lines) {
    if (/^[ \t]/.test(line) && whole.length) whole[whole.length - 1] += line.slice(1);
    else if (line.trim()) whole.push(line);
  }
  return whole.filter((line) => {
    const fits = /^[A-Za-z0-9-]+[;:]/.test(line) && line.includes(':');
    if (!fits) notes.push(`The line “${line.slice(0, 40)}” cannot be read and is left out.`);
    return fits && !/^RRULE[;:]/i.test(line);
  });
}

const STATUSES = ['CONFIRMED', 'TENTATIVE', 'CANCELLED'];

/** What an event says that cannot be kept, or is none of the standard's words. */
function noteLosses(component: ICAL.Component, notes: string[]): void {
  const said = (name: string): string => String(component.getFirstPropertyValue(name) ?? '').trim();
  const status = said('status');
  if (status && !STATUSES.includes(status.toUpperCase())) notes.push(`“${status.slice(0, 40)}” is no status; it is taken as going ahead.`);
  const url = said('url');
  if (url && !/^https?:\/\//i.test(url)) notes.push(`The address “${url.slice(0, 60)}” is left out: only http and https are followed.`);
  if (url.length > 500) notes.push('Its address is longer than 500 characters and is left out.');
  if (!said('uid')) notes.push('It has no UID; it is known again by its title, its place and its first date.');
  if (/^\s*-/.test(said('duration'))) notes.push('Its length is less than nothing; no end is taken from it.');
}

/** The rules as they are written: the parser would read INTERVAL=0 as 1, and our own reader says what is wrong. */
function rulesIn({ lines }: Block): string[] {
  const unfolded = lines
    .join('\n')
    .replace(/\n[ \t]/g, '')
    .split('\n');
  return unfolded.flatMap((line) => /^RRULE[^:]*:(.*)$/i.exec(line)?.[1]?.trim() ?? []);
}

function minutesOf(duration: string): number {
  return Math.round(ICAL.Duration.fromString(duration).toSeconds() / 60);
}

/** The raw values of a property with dates, which must exist; the parser alone would read 30 February as 2 March. */
function timesOf(property: ICAL.Property, zones: ZoneBook, notes: string[]): RawTime[] {
  const values = (property.toJSON() as unknown as unknown[]).slice(3);
  return values.filter((value) => typeof value === 'string').map((value) => timeOf(value as string, property, zones, notes));
}

function timeOf(value: string, property: ICAL.Property, zones: ZoneBook, notes: string[]): RawTime {
  const match = /^(\d{4}-\d{2}-\d{2})(?:T(\d{2}:\d{2})(?::(\d{2}))?(Z)?)?$/.exec(value);
  const day = match ? parseIsoDay(match[1] ?? '') : undefined;
  if (!match || day === undefined) throw new Error(`there is no date “${value.slice(0, 30)}” (${property.name.toUpperCase()})`);
  if (match[2] === undefined) return { wall: { day, minute: null }, zone: undefined, seconds: 0 };
  const wall = parseIsoDateTime(`${match[1]}T${match[2]}`);
  if (!wall) throw new Error(`there is no time “${value.slice(11, 30)}” (${property.name.toUpperCase()})`);
  const seconds = Number(match[3] ?? 0) % 60;
  if (match[4]) return { wall, zone: 'UTC', seconds };
  const name = property.getParameter('tzid');
  if (typeof name !== 'string') return { wall, zone: undefined, seconds };
  const zone = zones.zone(name, ymdOf(day).year);
  return zone === undefined ? byOwnRules(wall, name, zones, { iso: value, seconds, notes }) : { wall, zone, seconds };
}

/** A time of a zone that only the file knows: by its rules in UTC. Without rules nobody can know it, and it is asked for. */
function byOwnRules(
  wall: PlainDateTime,
  name: string,
  zones: ZoneBook,
  { iso, seconds, notes }: { iso: string; seconds: number; notes: string[] },
): RawTime {
  const rules = zones.rulesOf(name);
  const offset = rules === undefined ? undefined : offsetByRules(rules, iso);
  if (offset === undefined) {
    zones.unknown.add(name);
    throw new Error(`its time zone “${name.slice(0, 60)}” is not known: say which one it is`);
  }
  notes.push(`Only the file knows the time zone “${name.slice(0, 60)}”; its times are read by the file’s own rules.`);
  return { wall: instantToDateTime('UTC', dateTimeToInstant('UTC', wall).ms - offset * MS_PER_MINUTE), zone: 'UTC', seconds };
}

function rdatesOf(property: ICAL.Property, zones: ZoneBook, notes: string[]): RawEvent['rdates'] {
  const values = (property.toJSON() as unknown as unknown[]).slice(3);
  return values.map((value) => {
    if (typeof value === 'string') return { start: timeOf(value, property, zones, notes), end: undefined, minutes: undefined };
    const [from, to] = value as [string, string];
    const start = timeOf(from, property, zones, notes);
    return /^[+-]?P/.test(to)
      ? { start, end: undefined, minutes: minutesOf(to) }
      : { start, end: timeOf(to, property, zones, notes), minutes: undefined };
  });
}

function descriptionOf(component: ICAL.Component, notes: string[]): { description: string; html: boolean } {
  const plain = String(component.getFirstPropertyValue('description') ?? '').trim();
  for (const property of component.getAllProperties('x-alt-desc')) {
    if (property.getParameter('fmttype') === 'text/html')
      return { description: cutTo(60_000, 'text', unescaped(String(property.getFirstValue())), notes), html: true };
  }
  const html = /<(p|br|a|b|strong|em|i|ul|ol|li|div|span|h[1-6])\b[^>]*>/i.test(plain);
  return { description: cutTo(60_000, 'text', plain, notes), html };
}

/** Cancelled by the standard's STATUS; what that has no word for, by the property that our own files carry. */
function eventStatusOf(component: ICAL.Component): EventStatus {
  // Earlier versions wrote it under another name.
  const property = component.getFirstPropertyValue('x-plain-almanac-status') ?? component.getFirstPropertyValue('x-plain-almanac-standing');
  const own = String(property ?? '').toLowerCase();
  const known = EVENT_STATUSES.find((eventStatus) => eventStatus === own);
  if (known) return known;
  return String(component.getFirstPropertyValue('status') ?? '').toUpperCase() === 'CANCELLED' ? 'cancelled' : 'going-ahead';
}

function pointOf(component: ICAL.Component): ReadEvent['point'] {
  const geo = component.getFirstPropertyValue('geo') as unknown;
  const [lat, lng] = (Array.isArray(geo) ? geo : String(geo ?? '').split(';')).map(Number);
  const there =
    lat !== undefined && lng !== undefined && Number.isFinite(lat) && Number.isFinite(lng) && Math.abs(lat) <= 90 && Math.abs(lng) <= 180;
  return there && geo ? { lat, lng } : undefined;
}

function organizerOf(component: ICAL.Component): ReadEvent['organizer'] {
  const property = component.getFirstProperty('organizer');
  if (!property) return undefined;
  const mail = String(property.getFirstValue() ?? '').replace(/^mailto:/i, '');
  const cn = property.getParameter('cn');
  const name = (typeof cn === 'string' ? cn : '').trim();
  return name || mail.includes('@')
    ? { name: (name || mail).slice(0, 120), mail: mail.includes('@') ? mail.slice(0, 200) : '' }
    : undefined;
}

/** What the standard's CONTACT and CONFERENCE and our own properties say; each only where it is there. */
function moreOf(component: ICAL.Component): Partial<IcalMore> {
  const plain = (name: string): string => String(component.getFirstPropertyValue(name) ?? '').trim();
  const own = (name: string): string => unescaped(plain(`x-plain-almanac-${name}`));
  const conference = unescaped(plain('conference'));
  const found: IcalMore = {
    contact: plain('contact'),
    onlineAddress: /^https?:\/\//i.test(conference) ? conference : '',
    cost: own('cost'),
    access: own('access'),
    note: own('note'),
    website: own('website'),
    call: own('call'),
  };
  return Object.fromEntries(Object.entries(found).filter(([, value]) => value)) as Partial<IcalMore>;
}

function attachmentsOf(component: ICAL.Component): string[] {
  const properties = [...component.getAllProperties('attach'), ...component.getAllProperties('image')];
  return properties
    .map((property) => String(property.getFirstValue() ?? ''))
    .filter((value) => /^https?:\/\//i.test(value))
    .map((value) => value.slice(0, 500));
}

function siblingOf(component: ICAL.Component): string | undefined {
  const related = component.getAllProperties('related-to').find((property) => property.getParameter('reltype') === 'SIBLING');
  return related ? String(related.getFirstValue()) : undefined;
}

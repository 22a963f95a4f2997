/**
 * iCalendar in (RFC 5545, 7986): ical.js parses, event by event, so that one that is broken does not take the others along.
 * Days and minutes as in the recurrence model. Nothing is fetched; HTML comes as it is written and is cleaned by the server.
 */
import ICAL from 'ical.js';
import { isoDay, parseIsoDay, ymdOf } from '../day/day';
import { compareWall, isoWall, parseIsoWall, sameWall, type Wall } from '../day/wall';
import { instantToWall, wallToInstant } from '../day/zone';
import { shiftedLength, startsBetween } from '../recurrence/expand';
import { type DateChange, type Length, type Recurrence, STANDINGS, type Standing, type Stretch } from '../recurrence/model';
import { isTooDense, TOO_DENSE } from '../recurrence/problems';
import { readRuleText } from '../recurrence/rule-text';
import type { Unreadable } from './incoming';
import { zoneOf } from './zones';

export interface ReadEvent {
  uid: string;
  /** line of the file at which it begins */
  line: number;
  sequence: number;
  title: string;
  description: string;
  /** the description is HTML */
  html: boolean;
  location: string;
  point: { lat: number; lng: number } | undefined;
  organizer: { name: string; mail: string } | undefined;
  categories: string[];
  url: string;
  standing: Standing;
  /** addresses of pictures and papers, which are not fetched */
  attachments: string[];
  recurrence: Recurrence;
  changes: DateChange[];
  /** where single dates are that are elsewhere, by their original start */
  places: Map<string, Pick<RawEvent, 'location' | 'point'>>;
  /** what the file says that cannot be kept */
  notes: string[];
}

export interface ReadFile {
  events: ReadEvent[];
  unreadable: Unreadable[];
  /** zones that neither name nor rules tell */
  unknownZones: string[];
}

export interface ReadOptions {
  /** for floating times, and for single dates in UTC */
  siteZone: string;
  /** zones that somebody chose, by the file's names */
  chosen: ReadonlyMap<string, string>;
  candidates: readonly string[];
}

export class FileError extends Error {
  override name = 'FileError';
}

interface Block {
  kind: 'VEVENT' | 'VTIMEZONE';
  line: number;
  lines: string[];
}

/** More events than this are brought in by parts. */
export const MOST_EVENTS = 50_000;

/** The events and zones of a file as runs of lines. Throws {@link FileError} when it is no iCalendar file. */
function blocksOf(text: string): { blocks: Block[]; broken: Unreadable[] } {
  if (!/^\s*BEGIN:VCALENDAR/im.test(text.slice(0, 2000)))
    throw new FileError('This is no iCalendar file: it does not begin with BEGIN:VCALENDAR.');
  const blocks: Block[] = [];
  const broken: Unreadable[] = [];
  let open: Block | undefined;
  let number = 0;
  for (const line of text.split(/\r\n|\n|\r/)) {
    number++;
    const begins = /^BEGIN:(VEVENT|VTIMEZONE)\s*$/i.exec(line)?.[1]?.toUpperCase() as Block['kind'] | undefined;
    if (begins) {
      if (open) broken.push({ line: open.line, title: titleIn(open), reason: `It has no END:${open.kind} before line ${number}.` });
      open = { kind: begins, line: number, lines: [] };
    }
    open?.lines.push(line);
    if (open && new RegExp(`^END:${open.kind}\\s*$`, 'i').test(line)) {
      blocks.push(open);
      open = undefined;
    }
    if (blocks.length > MOST_EVENTS)
      throw new FileError(`The file has more than ${MOST_EVENTS.toLocaleString('en')} events; bring it in by parts.`);
  }
  if (open) broken.push({ line: open.line, title: titleIn(open), reason: 'The file ends inside of it.' });
  return { blocks, broken };
}

const titleIn = ({ lines }: Block): string => (/^SUMMARY[^:]*:(.*)$/im.exec(lines.join('\n'))?.[1] ?? '').slice(0, 120);

const wrapped = (lines: readonly string[]): string => ['BEGIN:VCALENDAR', ...lines, 'END:VCALENDAR'].join('\r\n');

/** Reads a file. Throws {@link FileError} when it is none. */
export function readIcal(text: string, options: ReadOptions): ReadFile {
  const { blocks, broken } = blocksOf(text);
  const zones = new ZoneBook(blocks, options);
  const unreadable = [...broken];
  const raws: RawEvent[] = [];
  for (const block of blocks) {
    if (block.kind !== 'VEVENT') continue;
    try {
      raws.push(rawOf(block, zones));
    } catch (error) {
      unreadable.push({ line: block.line, title: titleIn(block), reason: reasonOf(error) });
    }
  }
  const events: ReadEvent[] = [];
  for (const group of groupsOf(raws)) {
    try {
      events.push(eventOf(group));
    } catch (error) {
      const [first] = group.masters;
      unreadable.push({ line: first?.line ?? 0, title: first?.title ?? '', reason: reasonOf(error) });
    }
  }
  return { events, unreadable: unreadable.sort((a, b) => a.line - b.line), unknownZones: [...zones.unknown] };
}

/** What is wrong, without the parser's own inner words. */
function reasonOf(error: unknown): string {
  const message = error instanceof Error ? error.message : '';
  const plain = message
    .replace(/^Error:\s*/, '')
    .replace(/\s+/g, ' ')
    .slice(0, 160);
  return plain ? `${plain.charAt(0).toUpperCase()}${plain.slice(1)}${/[.!?]$/.test(plain) ? '' : '.'}` : 'It cannot be read.';
}

class ZoneBook {
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
      if (name) this.rules.set(name, lines.join('\r\n'));
    }
  }
  get siteZone(): string {
    return this.options.siteZone;
  }
  /** The IANA zone of a name, the site's where it is not known: then it is asked for. */
  zone(name: string, year: number): string {
    const chosen = this.options.chosen.get(name);
    if (chosen) return chosen;
    if (!this.found.has(name)) {
      const { siteZone, candidates } = this.options;
      this.found.set(name, zoneOf({ name, rules: this.rules.get(name), year, candidates: [siteZone, ...candidates] }));
    }
    const zone = this.found.get(name);
    if (zone === undefined) this.unknown.add(name);
    return zone ?? this.options.siteZone;
  }
}

/** A point in time as the file writes it: `zone` undefined = floating. */
interface RawTime {
  wall: Wall;
  zone: string | undefined;
  seconds: number;
}

interface RawEvent extends Omit<ReadEvent, 'recurrence' | 'changes' | 'places'> {
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

function rawOf(block: Block, zones: ZoneBook): RawEvent {
  const root = new ICAL.Component(ICAL.parse(wrapped(block.lines)) as unknown as never[]);
  const component = root.getFirstSubcomponent('vevent');
  if (!component) throw new Error('it has no contents');
  const notes: string[] = [];
  const text = (name: string): string => String(component.getFirstPropertyValue(name) ?? '').trim();
  const all = (name: string) => component.getAllProperties(name);
  const startProperty = component.getFirstProperty('dtstart');
  if (!startProperty) throw new Error('it has no DTSTART, so nothing says when it is');
  const time = (property: ICAL.Property): RawTime[] => timesOf(property, zones);
  const [start] = time(startProperty);
  if (!start) throw new Error('its DTSTART is empty');
  const endProperty = component.getFirstProperty('dtend');
  const duration = component.getFirstProperty('duration');
  const rules = rulesIn(block);
  if (start.seconds) notes.push('The seconds of its start are dropped.');
  if (all('exrule').length) notes.push('EXRULE is no longer part of the standard and is left aside.');
  const recurrenceIdProperty = component.getFirstProperty('recurrence-id');
  if (recurrenceIdProperty?.getParameter('range')) notes.push('A change of this and all later dates is kept for the one date only.');
  const described = descriptionOf(component);
  const uid = text('uid');
  return {
    uid: uid || `line-${block.line}`,
    line: block.line,
    sequence: Math.max(0, Math.floor(Number(component.getFirstPropertyValue('sequence') ?? 0)) || 0),
    title: text('summary').replace(/\s+/g, ' ').slice(0, 160),
    ...described,
    location: text('location').replace(/\s+/g, ' ').slice(0, 300),
    point: pointOf(component),
    organizer: organizerOf(component),
    categories: [...new Set(all('categories').flatMap((property) => property.getValues().map((value) => String(value).trim())))].filter(
      Boolean,
    ),
    url: /^https?:\/\//i.test(text('url')) ? text('url').slice(0, 500) : '',
    standing: standingOf(component),
    attachments: attachmentsOf(component),
    notes,
    sibling: siblingOf(component),
    recurrenceId: recurrenceIdProperty ? time(recurrenceIdProperty)[0] : undefined,
    start,
    end: endProperty ? time(endProperty)[0] : undefined,
    minutes: duration ? minutesOf(String(duration.getFirstValue())) : undefined,
    rules,
    rdates: all('rdate').flatMap((property) => rdatesOf(property, zones)),
    exdates: all('exdate').flatMap(time),
    // A rule in UTC stays there; anything else without a zone is the site's.
    zone: start.zone === undefined || (start.zone === 'UTC' && !rules.length) ? zones.siteZone : start.zone,
  };
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
function timesOf(property: ICAL.Property, zones: ZoneBook): RawTime[] {
  const values = (property.toJSON() as unknown as unknown[]).slice(3);
  return values.filter((value) => typeof value === 'string').map((value) => timeOf(value as string, property, zones));
}

function timeOf(value: string, property: ICAL.Property, zones: ZoneBook): RawTime {
  const match = /^(\d{4}-\d{2}-\d{2})(?:T(\d{2}:\d{2})(?::(\d{2}))?(Z)?)?$/.exec(value);
  const day = match ? parseIsoDay(match[1] ?? '') : undefined;
  if (!match || day === undefined) throw new Error(`there is no date “${value.slice(0, 30)}” (${property.name.toUpperCase()})`);
  if (match[2] === undefined) return { wall: { day, minute: null }, zone: undefined, seconds: 0 };
  const wall = parseIsoWall(`${match[1]}T${match[2]}`);
  if (!wall) throw new Error(`there is no time “${value.slice(11, 30)}” (${property.name.toUpperCase()})`);
  const seconds = Number(match[3] ?? 0) % 60;
  if (match[4]) return { wall, zone: 'UTC', seconds };
  const name = property.getParameter('tzid');
  return { wall, zone: typeof name === 'string' ? zones.zone(name, ymdOf(day).year) : undefined, seconds };
}

function rdatesOf(property: ICAL.Property, zones: ZoneBook): RawEvent['rdates'] {
  const values = (property.toJSON() as unknown as unknown[]).slice(3);
  return values.map((value) => {
    if (typeof value === 'string') return { start: timeOf(value, property, zones), end: undefined, minutes: undefined };
    const [from, to] = value as [string, string];
    const start = timeOf(from, property, zones);
    return /^[+-]?P/.test(to)
      ? { start, end: undefined, minutes: minutesOf(to) }
      : { start, end: timeOf(to, property, zones), minutes: undefined };
  });
}

function descriptionOf(component: ICAL.Component): { description: string; html: boolean } {
  const plain = String(component.getFirstPropertyValue('description') ?? '').trim();
  for (const property of component.getAllProperties('x-alt-desc')) {
    if (property.getParameter('fmttype') === 'text/html')
      return { description: String(property.getFirstValue()).slice(0, 60_000), html: true };
  }
  const html = /<(p|br|a|b|strong|em|i|ul|ol|li|div|span|h[1-6])\b[^>]*>/i.test(plain);
  return { description: plain.slice(0, 60_000), html };
}

/** Cancelled by the standard's STATUS; what that has no word for, by the property that our own files carry. */
function standingOf(component: ICAL.Component): Standing {
  const own = String(component.getFirstPropertyValue('x-plain-almanac-standing') ?? '').toLowerCase();
  const known = STANDINGS.find((standing) => standing === own);
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

interface Group {
  masters: RawEvent[];
  overrides: RawEvent[];
}

/** Events that are one listing: the same UID, or siblings that name it. A changed date whose master is missing stands alone. */
function groupsOf(raws: readonly RawEvent[]): Group[] {
  const byUid = new Map<string, Group>();
  const groupOf = (uid: string): Group => {
    const known = byUid.get(uid);
    if (known) return known;
    const group: Group = { masters: [], overrides: [] };
    byUid.set(uid, group);
    return group;
  };
  const uids = new Set(raws.filter((raw) => !raw.recurrenceId).map((raw) => raw.uid));
  const home = new Map(raws.map((raw) => [raw.uid, raw.sibling && uids.has(raw.sibling) ? raw.sibling : raw.uid]));
  for (const raw of raws) {
    const group = groupOf(home.get(raw.uid) ?? raw.uid);
    if (raw.recurrenceId) group.overrides.push(raw);
    else if (group.masters.some((one) => one.uid === raw.uid)) keepNewer(group, raw);
    else group.masters.push(raw);
  }
  return [...byUid.values()].flatMap((group) => {
    if (group.masters.length) return [group];
    return group.overrides.map((raw) => ({
      masters: [{ ...raw, recurrenceId: undefined, notes: [...raw.notes, 'The event that this date belongs to is not in the file.'] }],
      overrides: [],
    }));
  });
}

/** The same UID twice is two versions of one event: the higher SEQUENCE counts. */
function keepNewer(group: Group, raw: RawEvent): void {
  const at = group.masters.findIndex((one) => one.uid === raw.uid);
  const known = group.masters[at];
  if (known && raw.sequence > known.sequence) group.masters[at] = raw;
}

/** A time in a zone's wall clock. */
function inZone({ wall, zone }: RawTime, target: string): Wall {
  if (wall.minute === null || zone === undefined || zone === target) return wall;
  return instantToWall(target, wallToInstant(zone, wall).ms);
}

function lengthOf(start: Wall, end: Wall | undefined, minutes: number | undefined): Length | null {
  if (start.minute === null) {
    const days = end ? end.day - start.day : minutes === undefined ? 1 : Math.round(minutes / 1440);
    return { days: Math.max(1, days), minute: null };
  }
  if (minutes !== undefined && !end) {
    const at = start.minute + minutes;
    return minutes > 0 ? { days: Math.floor(at / 1440), minute: at % 1440 } : null;
  }
  if (!end || compareWall(end, start) <= 0) return null;
  return { days: end.day - start.day, minute: end.minute ?? 0 };
}

function eventOf({ masters, overrides }: Group): ReadEvent {
  const [first] = masters;
  if (!first) throw new Error('it has no first date');
  const { zone } = first;
  const notes = [...first.notes];
  const stretches: Stretch[] = [];
  const leftOut: Wall[] = [];
  for (const master of masters) {
    const start = inZone(master.start, zone);
    const end = master.end && inZone(master.end, zone);
    if (end && compareWall(end, start) < 0) notes.push('It ends before it starts; its end is left aside.');
    const length = lengthOf(start, end, master.minutes);
    stretches.push(...rulesOf(master, start, length));
    for (const { start: raw, end: rawEnd, minutes } of master.rdates) {
      const at = inZone(raw, zone);
      const own =
        rawEnd || minutes !== undefined ? lengthOf(at, rawEnd && inZone(rawEnd, zone), minutes) : shiftedLength(length, start, at);
      if (!stretches.some((s) => !s.rule && sameWall(s.start, at)) && !(sameWall(at, start) && !rawEnd))
        stretches.push({ start: at, length: own, rule: null, limit: { kind: 'open' } });
    }
    leftOut.push(...master.exdates.map((raw) => inZone(raw, zone)));
  }
  const recurrence: Recurrence = { zone, stretches, leftOut: [], breaks: [] };
  recurrence.leftOut = leftOutOf(recurrence, leftOut);
  const places: ReadEvent['places'] = new Map();
  const changes = overrides.flatMap((override) => changeOf(override, { recurrence, master: first, notes, places }));
  const { sibling: _s, recurrenceId: _r, start: _a, end: _e, minutes: _m, rules: _u, rdates: _d, exdates: _x, zone: _z, ...event } = first;
  changes.sort((a, b) => compareWall(a.original, b.original));
  return { ...event, notes: [...new Set(notes)], recurrence, changes, places };
}

function rulesOf({ rules, zone }: RawEvent, start: Wall, length: Length | null): Stretch[] {
  if (!rules.length) return [{ start, length, rule: null, limit: { kind: 'open' } }];
  return rules.map((text) => {
    const { rule, limit } = readRuleText(text, zone, start.minute === null ? null : start.minute * 60);
    const stretch: Stretch = { start, length, rule, limit };
    if (isTooDense(stretch)) throw new Error(TOO_DENSE);
    return stretch;
  });
}

/** A left-out day takes out all dates of that day, though the standard wants the same kind of value as the start. */
function leftOutOf(recurrence: Recurrence, written: Wall[]): Wall[] {
  const timed = recurrence.stretches.some((s) => s.start.minute !== null);
  const walls = written.flatMap((wall) =>
    timed && wall.minute === null ? startsBetween(recurrence, wall.day, wall.day).map((s) => s.wall) : [wall],
  );
  const unique = new Map(walls.map((wall) => [isoWall(wall), wall]));
  return [...unique.values()].sort(compareWall);
}

interface ChangeInput {
  recurrence: Recurrence;
  master: RawEvent;
  notes: string[];
  places: ReadEvent['places'];
}

function changeOf(override: RawEvent, { recurrence, master, notes, places }: ChangeInput): DateChange[] {
  const { zone } = recurrence;
  const named = override.recurrenceId ? inZone(override.recurrenceId, zone) : undefined;
  if (!named) return [];
  const there = startsBetween({ ...recurrence, leftOut: [] }, named.day, named.day);
  const date = there.find(({ wall }) => sameWall(wall, named)) ?? (named.minute === null ? there[0] : undefined);
  if (!date) {
    notes.push(`A change of ${isoDay(named.day)} belongs to no date of the rule and is left aside.`);
    return [];
  }
  const stretch = recurrence.stretches[date.stretch] as Stretch;
  const start = inZone(override.start, zone);
  const length = lengthOf(start, override.end && inZone(override.end, zone), override.minutes);
  const usual = shiftedLength(stretch.length, stretch.start, start);
  if (override.title && override.title !== master.title)
    notes.push(`On ${isoDay(named.day)} it is called “${override.title}”, which a single date cannot be.`);
  const change: DateChange = {
    original: date.wall,
    movedTo: sameWall(start, date.wall) ? null : start,
    length: JSON.stringify(length) === JSON.stringify(usual) ? null : length,
    standing: override.standing === master.standing ? null : override.standing,
    note: '',
  };
  const elsewhere = override.location !== '' && override.location !== master.location;
  if (elsewhere) places.set(isoWall(date.wall), { location: override.location, point: override.point });
  return change.movedTo || change.length || change.standing || elsewhere ? [change] : [];
}

/** One event of a calendar file as its properties say it, before its rules and its zone are made out. */
import ICAL from 'ical.js';
import { parseIsoDay, ymdOf } from '../day/day';
import { parseIsoWall, type Wall } from '../day/wall';
import { STANDINGS, type Standing } from '../recurrence/model';
import type { ReadEvent, ReadOptions } from './read-ical';
import { zoneOf } from './zones';

export interface Block {
  kind: 'VEVENT' | 'VTIMEZONE';
  line: number;
  lines: string[];
}

export const wrapped = (lines: readonly string[]): string => ['BEGIN:VCALENDAR', ...lines, 'END:VCALENDAR'].join('\r\n');

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
export interface RawTime {
  wall: Wall;
  zone: string | undefined;
  seconds: number;
}

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

export function rawOf(block: Block, zones: ZoneBook): RawEvent {
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

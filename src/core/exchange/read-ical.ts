/**
 * iCalendar in (RFC 5545, 7986): ical.js parses, event by event, so that one that is broken does not take the others along.
 * Days and minutes as in the recurrence model. Nothing is fetched; HTML comes as it is written and is cleaned by the server.
 */
import { mostOf } from '../listing/fields';
import { startOfSentence } from '../text/text';
import { isoDay } from '../day/day';
import { compareDateTime, isoDateTime, sameDateTime, type PlainDateTime } from '../day/plain-date-time';
import { instantToDateTime, dateTimeToInstant } from '../day/zone';
import { shiftedLength, startsBetween } from '../recurrence/expand';
import type { DateChange, Length, Recurrence, RecurrencePart } from '../recurrence/model';
import { whyNotTaken } from '../recurrence/problems';
import { readRuleText } from '../recurrence/rule-text';
import type { Unreadable } from './incoming';
import type { ReadEvent, ReadOptions } from './read-event';
import { type Block, NO_UID, ZoneBook, type RawTime, type RawEvent, rawOf } from './ical-event';

/** A calendar file read to its end: what is in it, and what is not. */
export interface ReadFile {
  events: ReadEvent[];
  unreadable: Unreadable[];
  /** zones that neither name nor rules tell */
  unknownZones: string[];
}

/** A file that cannot be read at all; its message is for people. */
export class FileError extends Error {
  override name = 'FileError';
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
    if (open && /^END:(VEVENT|VTIMEZONE)\s*$/i.exec(line)?.[1]?.toUpperCase() === open.kind) {
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
  // A file that calls events off says so once, for all of them (RFC 5546 3.2.5).
  if (/^METHOD:CANCEL\s*$/im.test(text.slice(0, 4000))) for (const raw of raws) raw.eventStatus = 'cancelled';
  const seen = new Map<string, number>();
  for (const raw of raws) {
    if (!raw.uid.startsWith(NO_UID)) continue;
    const n = (seen.get(raw.uid) ?? 0) + 1;
    seen.set(raw.uid, n);
    if (n > 1) raw.uid = `${raw.uid}#${n}`;
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
    .slice(0, mostOf('title'));
  return plain ? `${startOfSentence(plain)}${/[.!?]$/.test(plain) ? '' : '.'}` : 'It cannot be read.';
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
function inZone({ wall, zone }: RawTime, target: string): PlainDateTime {
  if (wall.minute === null || zone === undefined || zone === target) return wall;
  return instantToDateTime(target, dateTimeToInstant(zone, wall).ms);
}

function lengthOf(start: PlainDateTime, end: PlainDateTime | undefined, minutes: number | undefined): Length | null {
  if (start.minute === null) {
    const days = end ? end.day - start.day : minutes === undefined ? 1 : Math.round(minutes / 1440);
    return { days: Math.max(1, days), minute: null };
  }
  if (minutes !== undefined && !end) {
    const at = start.minute + minutes;
    return minutes > 0 ? { days: Math.floor(at / 1440), minute: at % 1440 } : null;
  }
  if (!end || compareDateTime(end, start) <= 0) return null;
  return { days: end.day - start.day, minute: end.minute ?? 0 };
}

function eventOf({ masters, overrides }: Group): ReadEvent {
  const [first] = masters;
  if (!first) throw new Error('it has no first date');
  const { zone } = first;
  const notes = [...first.notes];
  const parts: RecurrencePart[] = [];
  const exdates: PlainDateTime[] = [];
  for (const master of masters) {
    const start = inZone(master.start, zone);
    const end = master.end && inZone(master.end, zone);
    if (end && compareDateTime(end, start) < 0) notes.push('It ends before it starts; its end is left aside.');
    const length = lengthOf(start, end, master.minutes);
    parts.push(...rulesOf(master, start, length));
    for (const { start: raw, end: rawEnd, minutes } of master.rdates) {
      const at = inZone(raw, zone);
      const own =
        rawEnd || minutes !== undefined ? lengthOf(at, rawEnd && inZone(rawEnd, zone), minutes) : shiftedLength(length, start, at);
      if (!parts.some((s) => !s.rule && sameDateTime(s.start, at)) && !(sameDateTime(at, start) && !rawEnd))
        parts.push({ start: at, length: own, rule: null, limit: { kind: 'open' } });
    }
    exdates.push(...master.exdates.map((raw) => inZone(raw, zone)));
  }
  const recurrence: Recurrence = { zone, parts, exdates: [], breaks: [] };
  recurrence.exdates = exdatesOf(recurrence, exdates);
  const places: ReadEvent['places'] = new Map();
  const changes = overrides.flatMap((override) => changeOf(override, { recurrence, master: first, notes, places }));
  const { sibling: _s, recurrenceId: _r, start: _a, end: _e, minutes: _m, rules: _u, rdates: _d, exdates: _x, zone: _z, ...event } = first;
  const { eventStatus } = first;
  const own = ownDates(masters, zone, { changes, places, notes });
  changes.push(...own.changes);
  changes.sort((a, b) => compareDateTime(a.original, b.original));
  return { ...event, eventStatus: own.same ? eventStatus : 'going-ahead', notes: [...new Set(notes)], recurrence, changes, places };
}

/** Dates that are an event each have a standing and a place each: those that differ from the first's are changes of theirs. */
function ownDates(
  masters: readonly RawEvent[],
  zone: string,
  { changes, places, notes }: { changes: readonly DateChange[]; places: ReadEvent['places']; notes: string[] },
): { same: boolean; changes: DateChange[] } {
  const [first] = masters;
  const same = masters.every((one) => one.eventStatus === first?.eventStatus);
  const plain = same ? first?.eventStatus : 'going-ahead';
  const found: DateChange[] = [];
  for (const master of masters) {
    const original = inZone(master.start, zone);
    const eventStatus = master.eventStatus === plain ? null : master.eventStatus;
    const elsewhere = master.location !== '' && master.location !== first?.location;
    if (master.rules.length) {
      if (eventStatus) notes.push('Some of its dates are called off, others not: look which.');
      continue;
    }
    if (elsewhere) places.set(isoDateTime(original), { location: master.location, point: master.point });
    const known = changes.some((change) => sameDateTime(change.original, original));
    if ((eventStatus || elsewhere) && !known) found.push({ original, movedTo: null, length: null, eventStatus, note: '' });
  }
  return { same, changes: found };
}

function rulesOf({ rules, zone }: RawEvent, start: PlainDateTime, length: Length | null): RecurrencePart[] {
  if (!rules.length) return [{ start, length, rule: null, limit: { kind: 'open' } }];
  return rules.map((text) => {
    const { rule, limit } = readRuleText(text, zone, start.minute === null ? null : start.minute * 60);
    const recurrencePart: RecurrencePart = { start, length, rule, limit };
    const refused = whyNotTaken([recurrencePart]);
    if (refused) throw new Error(refused.reason);
    return recurrencePart;
  });
}

/** A left-out day takes out all dates of that day, though the standard wants the same kind of value as the start. */
function exdatesOf(recurrence: Recurrence, written: PlainDateTime[]): PlainDateTime[] {
  const timed = recurrence.parts.some((s) => s.start.minute !== null);
  const walls = written.flatMap((wall) =>
    timed && wall.minute === null ? startsBetween(recurrence, wall.day, wall.day).map((s) => s.wall) : [wall],
  );
  const unique = new Map(walls.map((wall) => [isoDateTime(wall), wall]));
  return [...unique.values()].sort(compareDateTime);
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
  const there = startsBetween({ ...recurrence, exdates: [] }, named.day, named.day);
  const date = there.find(({ wall }) => sameDateTime(wall, named)) ?? (named.minute === null ? there[0] : undefined);
  if (!date) {
    notes.push(`A change of ${isoDay(named.day)} belongs to no date of the rule and is left aside.`);
    return [];
  }
  const recurrencePart = recurrence.parts[date.recurrencePart] as RecurrencePart;
  const start = inZone(override.start, zone);
  const length = lengthOf(start, override.end && inZone(override.end, zone), override.minutes);
  const usual = shiftedLength(recurrencePart.length, recurrencePart.start, start);
  if (override.title && override.title !== master.title)
    notes.push(`On ${isoDay(named.day)} it is called “${override.title}”, which a single date cannot be.`);
  const change: DateChange = {
    original: date.wall,
    movedTo: sameDateTime(start, date.wall) ? null : start,
    length: JSON.stringify(length) === JSON.stringify(usual) ? null : length,
    eventStatus: override.eventStatus === master.eventStatus ? null : override.eventStatus,
    note: '',
  };
  const elsewhere = override.location !== '' && override.location !== master.location;
  if (elsewhere) places.set(isoDateTime(date.wall), { location: override.location, point: override.point });
  return change.movedTo || change.length || change.eventStatus || elsewhere ? [change] : [];
}

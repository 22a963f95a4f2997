/** What bringing a file in would do, event by event, without writing anything. */
import { inArray } from 'drizzle-orm';
import { emptyContent, type ListingContent } from '@/core/listing/content';
import type { ReadEvent, ReadFile } from '@/core/exchange/read-ical';
import { sayChange, sayRecurrence } from '@/core/phrase/say';
import type { Style } from '@/core/phrase/format';
import { changesFromStored, fromStored, toStored, type StoredChange } from '@/core/recurrence/stored';
import type { Day } from '@/core/day/day';
import { isoWall } from '@/core/day/wall';
import { expand } from '@/core/recurrence/expand';
import { canonical } from '@/core/text/canonical';
import { paragraphs, plainText } from '@/core/text/text';
import type { Db } from '../db/client';
import { importSource, listing } from '../db/schema';
import { cleanHtml } from '../listings/html';
import type { Lookup } from '../public/lookup';
import { categoryOf, type Decided, type MatchKind, matchKey, organizerOf, venueOf } from './match';

/** The fields of a listing that a calendar file speaks of. */
const FIELDS = ['title', 'text', 'recurrence', 'changes', 'standing', 'website', 'venueIds', 'organizerIds', 'categoryIds'] as const;
type Field = (typeof FIELDS)[number];
type Imported = Pick<ListingContent, Field>;

export type PlannedAction = 'new' | 'changed' | 'same' | 'older';

export interface Difference {
  what: string;
  before: string;
  after: string;
}

export interface Planned {
  uid: string;
  line: number;
  action: PlannedAction;
  listingId: string | null;
  revision: number;
  edited: boolean;
  published: boolean;
  title: string;
  when: string;
  /** single dates that differ, said */
  changed: string[];
  place: string;
  sequence: number;
  /** what the listing becomes */
  content: ListingContent;
  before: ListingContent | null;
  /** what the file says, to compare with the next time */
  imported: ListingContent;
  source: { content: ListingContent; sequence: number } | null;
  differences: Difference[];
  notes: string[];
}

/** Words of the file that nobody has given a meaning yet. */
export interface Open {
  kind: MatchKind;
  said: string;
  mail: string;
  events: number;
}

export interface Plan {
  items: Planned[];
  open: Open[];
}

export interface PlanInput {
  file: ReadFile;
  found: Lookup;
  decided: Decided;
  style: Style;
  /** UIDs of this site's own files end so */
  host: string;
  /** dates are compared so far */
  horizon: Day;
}

const OWN_UID = /^([0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12})@(.+)$/;

export async function planImport(db: Db, { file, found, decided, style, host, horizon }: PlanInput): Promise<Plan> {
  const uids = file.events.map((event) => event.uid);
  const sources = await readChunks(uids, (chunk) => db.select().from(importSource).where(inArray(importSource.uid, chunk)));
  const sourceOf = new Map(sources.map((row) => [row.uid, row]));
  const own = new Map(uids.flatMap((uid) => (OWN_UID.exec(uid)?.[2] === host ? [[uid, uid.slice(0, 36)] as const] : [])));
  const ids = [...new Set([...sources.map((row) => row.listingId), ...own.values()])];
  const rows = await readChunks(ids, (chunk) => db.select().from(listing).where(inArray(listing.id, chunk)));
  const rowOf = new Map(rows.map((row) => [row.id, row]));
  const open = new Map<string, Open>();
  const items = file.events.map((event): Planned => {
    const source = sourceOf.get(event.uid);
    const row = rowOf.get(source?.listingId ?? own.get(event.uid) ?? '');
    const said = importedOf(event, found, decided, open);
    const isOwn = !source && row !== undefined;
    // Our own files hold the text without its form, and the address of the page: those stay as they are here.
    const fresh = isOwn ? { ...said, text: row.working.text, website: row.working.website, organizerIds: row.working.organizerIds } : said;
    const content = merged(row?.working, source?.content, fresh, horizon);
    const differences = row ? differencesOf(row.working, content, found, style) : [];
    const older = row !== undefined && source !== undefined && event.sequence < source.sequence;
    return {
      uid: event.uid,
      line: event.line,
      action: older ? 'older' : row ? (differences.length ? 'changed' : 'same') : 'new',
      listingId: row?.id ?? null,
      revision: row?.revision ?? 0,
      edited: row?.edited ?? false,
      published: row?.stage === 'published',
      title: event.title || 'Without a title',
      when: sayRecurrence(event.recurrence, style),
      changed: event.changes.map((one) => sayChange(one, style)),
      place: event.location,
      sequence: event.sequence,
      content,
      before: row?.working ?? null,
      imported: { ...emptyContent(), ...fresh },
      source: source ? { content: source.content, sequence: source.sequence } : null,
      differences,
      notes: [...event.notes, ...event.attachments.map((address) => `Not fetched: ${address}`)],
    };
  });
  return { items, open: [...open.values()].sort((a, b) => (a.kind + a.said < b.kind + b.said ? -1 : 1)) };
}

async function readChunks<T>(keys: readonly string[], read: (chunk: string[]) => Promise<T[]>): Promise<T[]> {
  const found: T[] = [];
  for (let at = 0; at < keys.length; at += 500) found.push(...(await read(keys.slice(at, at + 500))));
  return found;
}

function importedOf(event: ReadEvent, found: Lookup, decided: Decided, open: Map<string, Open>): Imported {
  const ask = (kind: MatchKind, said: string, mail = ''): void => {
    const key = matchKey(kind, said);
    const known = open.get(key);
    if (known) known.events++;
    else open.set(key, { kind, said, mail, events: 1 });
  };
  const venue = venueOf(event, found, decided);
  if (venue === undefined && event.location) ask('venue', event.location);
  const organizer = organizerOf(event, found, decided);
  if (organizer === undefined && event.organizer) ask('organizer', event.organizer.name, event.organizer.mail);
  const categories = event.categories.flatMap((said) => {
    const category = categoryOf(said, found, decided);
    if (category === undefined) ask('category', said);
    return category ?? [];
  });
  return {
    title: event.title,
    text: cleanHtml(event.html ? event.description : paragraphs(event.description)),
    recurrence: toStored(event.recurrence),
    changes: event.changes.flatMap((change): StoredChange[] => {
      const original = isoWall(change.original);
      const place = event.places.get(original);
      const elsewhere = place && venueOf(place, found, decided);
      if (place && elsewhere === undefined && place.location) ask('venue', place.location);
      const stored = { ...change, original, movedTo: change.movedTo && isoWall(change.movedTo) };
      const says = stored.movedTo || stored.length || stored.standing || stored.note || elsewhere;
      return says ? [{ ...stored, ...(elsewhere ? { venueId: elsewhere } : {}) }] : [];
    }),
    standing: event.standing,
    website: event.url,
    venueIds: venue ? [venue] : [],
    organizerIds: organizer ? [organizer] : [],
    categoryIds: [...new Set(categories)].slice(0, 10),
  };
}

const same = (a: unknown, b: unknown): boolean => canonical(a) === canonical(b);

/** Format 1 and 2 of a recurrence say the same. */
const plain = (field: Field, content: Imported): unknown =>
  field === 'recurrence' && content.recurrence ? { ...content.recurrence, format: 2 } : content[field];

/** What the file changed since it last came in goes over what is here; what it did not change stays as editors have it. */
function merged(here: ListingContent | undefined, last: ListingContent | undefined, file: Imported, horizon: Day): ListingContent {
  if (!here) return { ...emptyContent(), ...file, attendance: 'in-person' };
  const next = { ...here };
  // The same dates may be said otherwise: a break here is so many left-out dates in a file.
  const dated = same(datesOf(here, horizon), datesOf(file, horizon));
  for (const field of FIELDS) {
    if (dated && (field === 'recurrence' || field === 'changes')) continue;
    if (last && same(plain(field, last), plain(field, file))) continue;
    // A file names one place and one organizer; those that stand after it here are none of its business.
    if ((field === 'venueIds' || field === 'organizerIds') && file[field][0] !== undefined && file[field][0] === here[field][0]) continue;
    if (!same(plain(field, here), plain(field, file))) Object.assign(next, { [field]: file[field] });
  }
  return next;
}

/** What happens when, in words that compare: start, end, standing, original. */
function datesOf({ recurrence: stored, changes }: Pick<ListingContent, 'recurrence' | 'changes'>, horizon: Day): string[] {
  if (!stored) return [];
  const recurrence = fromStored(stored);
  const first = Math.min(...recurrence.stretches.map((s) => s.start.day));
  const dates = expand(recurrence, changesFromStored(changes), first, Math.max(first, horizon));
  return [
    recurrence.zone,
    ...dates.map((d) => `${isoWall(d.original)} ${isoWall(d.start)} ${d.end ? isoWall(d.end) : ''} ${d.standing ?? ''} ${d.venueId ?? ''}`),
  ];
}

function differencesOf(before: ListingContent, after: ListingContent, found: Lookup, style: Style): Difference[] {
  const names = (ids: string[], of: Map<string, { name: string }>): string =>
    ids.map((id) => of.get(id)?.name ?? 'removed').join(', ') || 'none';
  const when = (content: ListingContent): string => (content.recurrence ? sayRecurrence(fromStored(content.recurrence), style) : 'no date');
  const shown: Record<Field, [string, (content: ListingContent) => string]> = {
    title: ['Title', (c) => c.title],
    text: ['Text', (c) => plainText(c.text).slice(0, 160) || 'none'],
    recurrence: ['When', when],
    changes: [
      'Changed dates',
      (c) =>
        changesFromStored(c.changes)
          .map((one) => sayChange(one, style))
          .join('; ') || 'none',
    ],
    standing: ['Standing', (c) => c.standing],
    website: ['Website', (c) => c.website || 'none'],
    venueIds: ['Venue', (c) => names(c.venueIds, found.venue)],
    organizerIds: ['Organizer', (c) => names(c.organizerIds, found.organizer)],
    categoryIds: ['Categories', (c) => names(c.categoryIds, found.category)],
  };
  return FIELDS.filter((field) => !same(plain(field, before), plain(field, after))).map((field) => {
    const [what, say] = shown[field];
    return { what, before: say(before), after: say(after) };
  });
}

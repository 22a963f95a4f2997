/** What bringing listings in would do, one by one, without writing anything. */
import { createHash } from 'node:crypto';
import type { EpochDay } from '@/core/day/day';
import { isoDateTime } from '@/core/day/plain-date-time';
import type { Incoming, Named } from '@/core/exchange/incoming';
import type { ListingContent } from '@/core/listing/content';
import { type ContentField, emptyContent, FIELD_NAMES, FIELDS } from '@/core/listing/fields';
import { sayField } from '@/core/listing/say-field';
import type { Style } from '@/core/phrase/format';
import { sayChange, sayRecurrence } from '@/core/phrase/say';
import { expand } from '@/core/recurrence/expand';
import { changesFromStored, fromStored, type StoredChange } from '@/core/recurrence/stored';
import { canonical } from '@/core/text/canonical-json';
import { paragraphs, plainText } from '@/core/text/text';
import type { Db } from '../db/client';
import { cleanHtml } from '../listings/html';
import type { ReferenceData } from '../reference/read';
import { type Answer, Identities, type Identity, type ListingRow, saidBefore, type SourceRow } from './identity';
import { categoryOf, type Decided, type MatchKind, matchKey, organizerOf, venueOf } from './word-matches';
import { serverWords } from '@/words/desk';

const w = serverWords.exchangeImportPlan;

/** A field that files speak of. */
export type Field = Exclude<ContentField, 'pictureId' | 'galleryIds' | 'tagIds'>;
type Imported = Partial<Pick<ListingContent, Field>>;

/** `maybe`: it may be a listing of ours; nothing is written before somebody says whether it is. */
export type PlannedAction = 'new' | 'changed' | 'same' | 'older' | 'maybe';
/** What writes. */
export const writes = (action: PlannedAction): boolean => action === 'new' || action === 'changed';

/** What would change in one field, in words. */
export interface Difference {
  what: string;
  before: string;
  after: string;
}

/** What would be done with one listing of a file. */
export interface Planned {
  uid: string;
  line: number;
  /** of what the file says */
  hash: string;
  action: PlannedAction;
  /** why it may be a listing of ours, in a sentence; empty = it is known */
  doubt: string;
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

/** What would be done with a file, and what has to be answered first. */
export interface Plan {
  items: Planned[];
  open: Open[];
}

/** What planning needs to know. */
export interface PlanInput {
  items: readonly Incoming[];
  /** what somebody said of rows in doubt, one for each */
  answers: readonly Answer[];
  /** where the file comes from */
  source: string;
  reference: ReferenceData;
  decided: Decided;
  style: Style;
  /** dates are compared so far */
  horizon: EpochDay;
}

/** What a row of a file says, as the site understands its words. */
interface Read {
  item: Incoming;
  answer: Answer;
  meant: Meanings;
  hash: string;
}

function readItems({ items, answers, reference, decided }: PlanInput): { read: Read[]; open: Open[] } {
  const open = new Map<string, Open>();
  const read = items.map((item, i): Read => {
    const meant = meaningsOf(item, reference, decided, open);
    return { item, answer: answers[i] ?? '', meant, hash: hashOf(item, meant) };
  });
  return { read, open: [...open.values()].sort((a, b) => (a.kind + a.said < b.kind + b.said ? -1 : 1)) };
}

/** What each row of a file would do, with what a preview shows of it. */
export async function planImport(db: Db, input: PlanInput): Promise<Plan> {
  const { read, open } = readItems(input);
  return { items: await planRead(db, read, input), open };
}

/** The same without what a preview shows: rows that say what they said before are known by their hashes, and no listing is read for them. */
export async function planActions(db: Db, input: PlanInput): Promise<{ actions: PlannedAction[]; open: Open[] }> {
  const { read, open } = readItems(input);
  const before = await saidBefore(
    db,
    read.filter(({ answer }) => answer !== 'new').map(({ item, hash }) => ({ uid: item.uid, hash })),
  );
  const isSame = ({ item, answer, hash }: Read): boolean => answer !== 'new' && before.has(`${hash} ${item.uid}`);
  const others = await planRead(
    db,
    read.filter((row) => !isSame(row)),
    input,
  );
  let next = 0;
  return { actions: read.map((row) => (isSame(row) ? 'same' : (others[next++]?.action ?? 'same'))), open };
}

async function planRead(db: Db, read: readonly Read[], { source, reference, style, horizon }: PlanInput): Promise<Planned[]> {
  const identities = await Identities.read(
    db,
    source,
    read.map(({ item }) => item),
    style,
  );
  return read.map(({ item, answer, meant, hash }): Planned => {
    // A file that says the same as the last time changes nothing, whatever editors made of it since.
    const before = answer === 'new' ? undefined : identities.saidBefore(item, hash);
    if (before) return unchanged(item, before, { style, hash });
    const identity = identities.of(item, answer);
    const fresh = asHere(item, importedOf(item, meant), identity.row, identity.source !== undefined);
    return plannedOf(item, fresh, identity, { reference, style, horizon, hash });
  });
}

type Row = ListingRow;

/** What a row of a file says, in a few letters. */
const hashOf = (item: Incoming, meant: Meanings): string =>
  createHash('sha256')
    .update(canonical([item.content, item.html, item.sequence, meant.venues, meant.organizers, meant.categories, [...meant.places]]))
    .digest('base64url')
    .slice(0, 22);

function unchanged(item: Incoming, { row, source }: Identity, { style, hash }: Pick<PlanInput, 'style'> & { hash: string }): Planned {
  const working = (row as Row).working;
  return {
    ...base(item, { row, source }, hash),
    action: 'same',
    when: working.recurrence ? sayRecurrence(fromStored(working.recurrence), style) : w.noDate(),
    changed: [],
    content: working,
    imported: (source as SourceRow).content,
    differences: [],
  };
}

function base(
  item: Incoming,
  { row, source, doubt = '' }: Identity,
  hash: string,
): Omit<Planned, 'action' | 'when' | 'changed' | 'content' | 'imported' | 'differences'> {
  return {
    uid: item.uid,
    line: item.line,
    hash,
    doubt,
    listingId: row?.id ?? null,
    revision: row?.revision ?? 0,
    edited: row?.edited ?? false,
    published: row?.stage === 'published',
    title: item.content.title || w.withoutATitle(),
    place: item.venues?.[0]?.name ?? '',
    sequence: item.sequence,
    before: row?.working ?? null,
    source: source ? { content: source.content, sequence: source.sequence } : null,
    notes: item.notes,
  };
}

/** What a file can say of a listing of ours only without its form is left as it is here. */
function asHere(item: Incoming, file: Imported, row: Row | undefined, knownBefore: boolean): Imported {
  const said = row && isSameLoneDate(row.working, file) ? { ...file, ...whenHere(row.working) } : file;
  if (!row || item.html) return said;
  const sameText = said.text !== undefined && plainText(said.text) === plainText(row.working.text);
  const fresh = sameText ? { ...said, text: row.working.text } : said;
  // A calendar file of our own has the summary in its text, and the address of the page.
  if (knownBefore || item.content.summary !== undefined) return fresh;
  return { ...fresh, text: row.working.text, website: row.working.website, organizerIds: row.working.organizerIds };
}

const whenHere = ({ recurrence, changes, eventStatus }: ListingContent) => ({ recurrence, changes, eventStatus });

/** A date of its own that is moved or called off here is one event with its new time or its status in a file. */
function isSameLoneDate({ recurrence, changes, eventStatus }: ListingContent, file: Imported): boolean {
  const [lone, second] = recurrence?.parts ?? [];
  const [change, another] = changes;
  const [said, more] = file.recurrence?.parts ?? [];
  if (!lone || second || lone.rule || !change || another || change.original !== lone.start) return false;
  if (!said || more || said.rule || file.changes?.length) return false;
  return said.start === (change.movedTo ?? lone.start) && file.eventStatus === (change.eventStatus ?? eventStatus);
}

function plannedOf(
  item: Incoming,
  fresh: Imported,
  identity: Identity,
  { reference, style, horizon, hash }: Pick<PlanInput, 'reference' | 'style' | 'horizon'> & { hash: string },
): Planned {
  const { row, source, doubt } = identity;
  const content = merged(row?.working, source?.content, fresh, horizon);
  const differences = row ? differencesOf(row.working, content, reference, style) : [];
  const older = row !== undefined && source !== undefined && item.sequence < source.sequence;
  const known = older ? 'older' : row ? (differences.length ? 'changed' : 'same') : 'new';
  return {
    ...base(item, identity, hash),
    action: doubt ? 'maybe' : known,
    when: content.recurrence ? sayRecurrence(fromStored(content.recurrence), style) : w.noDate(),
    changed: changesFromStored(item.content.changes ?? []).map((one) => sayChange(one, style)),
    content,
    imported: { ...emptyContent(), ...fresh },
    differences,
  };
}

/** What the words of a row mean here. */
interface Meanings {
  venues: string[];
  organizers: string[];
  categories: string[];
  /** where single dates are, by their original start */
  places: Map<string, string | undefined>;
}

/** Words for places, people and categories turned into what they mean here; what means nothing yet is gathered in `open`. */
function meaningsOf(item: Incoming, reference: ReferenceData, decided: Decided, open: Map<string, Open>): Meanings {
  const ask = (kind: MatchKind, said: string, mail = ''): void => {
    const key = matchKey(kind, said);
    const known = open.get(key);
    if (known) known.events++;
    else open.set(key, { kind, said, mail, events: 1 });
  };
  const venue = (named: Named): string[] => {
    const meaning = venueOf(named, reference, decided);
    if (meaning === undefined && named.name) ask('venue', named.name);
    return meaning ? [meaning] : [];
  };
  const organizer = (named: Named): string[] => {
    const meaning = organizerOf(named, reference, decided);
    if (meaning === undefined) ask('organizer', named.name, named.mail);
    return meaning ? [meaning] : [];
  };
  const category = (said: string): string[] => {
    const meaning = categoryOf(said, reference, decided);
    if (meaning === undefined) ask('category', said);
    return meaning ? [meaning] : [];
  };
  const unique = (ids: string[]): string[] => [...new Set(ids)].slice(0, 10);
  return {
    venues: unique((item.venues ?? []).flatMap(venue)),
    organizers: unique((item.organizers ?? []).flatMap(organizer)),
    categories: unique((item.categories ?? []).flatMap(category)),
    places: new Map(Object.entries(item.places).map(([original, named]) => [original, venue(named)[0]])),
  };
}

/** The fields that a file speaks of. */
function importedOf({ content, html, ...item }: Incoming, meant: Meanings): Imported {
  const imported: Imported = { ...content };
  if (content.text !== undefined) imported.text = cleanHtml(html ? content.text : paragraphs(content.text));
  if (content.changes) {
    imported.changes = content.changes.flatMap((change): StoredChange[] => {
      const elsewhere = meant.places.get(change.original);
      const says = change.movedTo || change.length || change.eventStatus || change.note || elsewhere;
      return says ? [{ ...change, ...(elsewhere ? { venueId: elsewhere } : {}) }] : [];
    });
  }
  if (item.venues) imported.venueIds = meant.venues;
  if (item.organizers) imported.organizerIds = meant.organizers;
  if (item.categories) imported.categoryIds = meant.categories;
  return imported;
}

const same = (a: unknown, b: unknown): boolean => canonical(a) === canonical(b);

/** What the file changed since it last came in goes over what is here; what it did not change stays as editors have it. */
function merged(here: ListingContent | undefined, last: ListingContent | undefined, file: Imported, horizon: EpochDay): ListingContent {
  if (!here) return { ...emptyContent(), ...file };
  const next = { ...here };
  // The same dates may be said otherwise: a break here is so many left-out dates in a file.
  const said = { changes: [], recurrence: null, eventStatus: here.eventStatus, ...file };
  const dated = file.recurrence === undefined || same(datesOf(here, horizon), datesOf(said, horizon));
  for (const field of Object.keys(file) as Field[]) {
    if (dated && (field === 'recurrence' || field === 'changes')) continue;
    if (last && same(last[field], file[field])) continue;
    // A file that names one place or organizer says nothing of those that stand after it here.
    if (field === 'venueIds' || field === 'organizerIds') {
      const [only, more] = file[field] ?? [];
      if (only !== undefined && more === undefined && only === here[field][0]) continue;
    }
    if (!same(here[field], file[field])) Object.assign(next, { [field]: file[field] });
  }
  return next;
}

/** What happens when, in words that compare: start, end, standing, place, original. */
function datesOf({ recurrence: stored, changes }: Pick<ListingContent, 'recurrence' | 'changes'>, horizon: EpochDay): string[] {
  if (!stored) return [];
  const recurrence = fromStored(stored);
  const first = Math.min(...recurrence.parts.map((s) => s.start.day));
  const dates = expand(recurrence, changesFromStored(changes), first, Math.max(first, horizon));
  // Without a rule a date is known by when it is, not by when it was to be.
  const ruled = recurrence.parts.some((s) => s.rule);
  return [
    recurrence.zone,
    ...dates.map(
      (d) =>
        `${ruled ? isoDateTime(d.original) : ''} ${isoDateTime(d.start)} ${d.end ? isoDateTime(d.end) : ''} ${d.eventStatus ?? ''} ${d.venueId ?? ''}`,
    ),
  ];
}

/** So much of a value is shown in a preview. */
const SHOWN = 160;
const COMPARED = FIELD_NAMES.filter((field): field is Field => field !== 'pictureId' && field !== 'galleryIds' && field !== 'tagIds');

function differencesOf(before: ListingContent, after: ListingContent, reference: ReferenceData, style: Style): Difference[] {
  const nameOf = (id: string): string | undefined =>
    (reference.venue.get(id) ?? reference.organizer.get(id) ?? reference.category.get(id))?.name;
  const said = (field: Field, content: ListingContent): string => sayField(field, content, nameOf, style).slice(0, SHOWN) || 'none';
  return COMPARED.filter((field) => !same(before[field], after[field])).map((field) => ({
    what: FIELDS[field].label,
    before: said(field, before),
    after: said(field, after),
  }));
}

/** What a reader chose to see, as it stands in an address. Unknown names stay harmless; lengths and numbers are bounded. */
import { type EpochDay, isoDay, parseIsoDay } from '@/core/day/day';
import type { Point } from '@/core/geo/geo';
import { fold } from '@/core/text/text';
import { FEATURES, type Feature } from '@/core/venue/features';
import { PARTS_OF_DAY, type PartOfDay } from './part-of-day';

/** Ways to take part. */
export const WAYS = ['in-person', 'online'] as const;
/** One of {@link WAYS}. */
export type Way = (typeof WAYS)[number];

/** Days that are named from today on. */
export const NAMED_DAYS = ['today', 'tomorrow', 'weekend', 'next-week'] as const;
/** One of {@link NAMED_DAYS}. */
export type NamedDays = (typeof NAMED_DAYS)[number];

/** Days that a reader chose: by a name, or from one to another, one of which may be open. */
export type DaysChoice = { named: NamedDays } | { named: undefined; from: EpochDay | undefined; to: EpochDay | undefined };

/** So many kilometres around a place. */
export const DISTANCES = [1, 5, 25] as const;
/** One of {@link DISTANCES}. */
export type Distance = (typeof DISTANCES)[number];
/** What an address need not say. */
export const USUAL_DISTANCE: Distance = 5;

/** What is near: around a place by its name as it was typed, or around a position, which is known and written to a kilometre. */
export interface Near {
  place: string;
  at: Point | undefined;
  km: Distance;
}

/** What a reader chose; an empty choice leaves nothing out. Several of one sort are "or", but for what somebody needs to get in. */
export interface Filters {
  /** addresses of categories; empty = all */
  kinds: string[];
  /** towns as written on venues, and `online`; empty = everywhere */
  places: string[];
  /** parts of the country that venues lie in, as written on them */
  areas: string[];
  /** addresses of venues */
  venues: string[];
  /** addresses of organizers */
  organizers: string[];
  near: Near | undefined;
  days: DaysChoice | undefined;
  parts: PartOfDay[];
  free: boolean;
  /** in the site's currency */
  upTo: number | undefined;
  /** what a venue has; all of them */
  access: Feature[];
  ways: Way[];
  /** what was called off is left out */
  goingAhead: boolean;
  /** addresses of tags */
  tags: string[];
  /** as typed; what stands in quotation marks stands together */
  words: string;
}

/** The names of choices in an address, in the order that caches. A view's script writes them too, so it takes them from here. */
export const FILTER_NAMES = [
  'kind',
  'place',
  'area',
  'venue',
  'by',
  'near',
  'within',
  'on',
  'from',
  'to',
  'part',
  'free',
  'upto',
  'access',
  'how',
  'ahead',
  'tag',
  'words',
] as const;
/** One of {@link FILTER_NAMES}. */
export type FilterName = (typeof FILTER_NAMES)[number];

/** The groups that a publisher may put on the form, in the order in which they stand until somebody says otherwise. */
export const FILTER_GROUPS = [
  'days',
  'kind',
  'place',
  'near',
  'part',
  'cost',
  'access',
  'how',
  'ahead',
  'area',
  'venue',
  'by',
  'tag',
] as const;
/** One of {@link FILTER_GROUPS}. */
export type FilterGroup = (typeof FILTER_GROUPS)[number];

/** The name of "online" among the places. */
export const ONLINE = 'online';

/** Nothing is chosen. */
export const NO_FILTERS: Filters = {
  kinds: [],
  places: [],
  areas: [],
  venues: [],
  organizers: [],
  near: undefined,
  days: undefined,
  parts: [],
  free: false,
  upTo: undefined,
  access: [],
  ways: [],
  goingAhead: false,
  tags: [],
  words: '',
};

const MOST_LENGTH = 80;
const MOST_VALUES = 60;
const MOST_TAGS = 8;
const MOST_AMOUNT = 1_000_000;

/** Values of one name, with commas between them or each by itself. */
function several(query: URLSearchParams, name: string): string[] {
  const all = query.getAll(name).flatMap((v) => v.slice(0, MOST_LENGTH * MOST_VALUES).split(','));
  return [...new Set(all.map((v) => v.trim().slice(0, MOST_LENGTH)).filter(Boolean))].slice(0, MOST_VALUES);
}

const among = <T extends string>(values: readonly string[], known: readonly T[]): T[] => known.filter((one) => values.includes(one));

/** An amount as people type it: `12`, `12.50`, `12,50`, `$12`; undefined where it is none. */
function readAmount(text: string): number | undefined {
  const plain = text
    .trim()
    .replace(/^\p{Sc}\s*|\s*\p{Sc}$/gu, '')
    .replace(',', '.');
  return /^\d{1,7}(\.\d{1,2})?$/.test(plain) && Number(plain) <= MOST_AMOUNT ? Number(plain) : undefined;
}

/** A position to a kilometre: two decimals of a degree. Undefined where it is none on the earth. */
function readPosition(text: string): Point | undefined {
  const [, lat, lng] = /^\s*(-?\d{1,3}(?:\.\d{1,8})?)\s*,\s*(-?\d{1,3}(?:\.\d{1,8})?)\s*$/.exec(text) ?? [];
  if (lat === undefined || lng === undefined) return undefined;
  const point = { lat: Math.round(Number(lat) * 100) / 100, lng: Math.round(Number(lng) * 100) / 100 };
  return Math.abs(point.lat) <= 90 && Math.abs(point.lng) <= 180 ? point : undefined;
}

function readNear(query: URLSearchParams): Near | undefined {
  const place = (query.get('near') ?? '').replace(/\s+/g, ' ').trim().slice(0, MOST_LENGTH);
  if (!place) return undefined;
  const at = readPosition(place);
  const km = Number(query.get('within'));
  return { place: at ? `${at.lat},${at.lng}` : place, at, km: DISTANCES.find((one) => one === km) ?? USUAL_DISTANCE };
}

function readDays(query: URLSearchParams): DaysChoice | undefined {
  const [named] = among([query.get('on') ?? ''], NAMED_DAYS);
  if (named) return { named };
  const [from, to] = ['from', 'to'].map((name) => parseIsoDay(query.get(name) ?? ''));
  return from === undefined && to === undefined ? undefined : { named: undefined, from, to };
}

/** Reads an address's query. */
export function readFilters(query: URLSearchParams): Filters {
  return {
    kinds: several(query, 'kind'),
    places: several(query, 'place'),
    areas: several(query, 'area'),
    venues: several(query, 'venue'),
    organizers: several(query, 'by'),
    near: readNear(query),
    days: readDays(query),
    parts: among(several(query, 'part'), PARTS_OF_DAY),
    free: query.get('free') === '1',
    upTo: readAmount(query.get('upto') ?? ''),
    access: among(several(query, 'access'), FEATURES),
    ways: among(several(query, 'how'), WAYS),
    goingAhead: query.get('ahead') === '1',
    tags: several(query, 'tag').slice(0, MOST_TAGS),
    words: (query.get('words') ?? '').replace(/\s+/g, ' ').trim().slice(0, MOST_LENGTH),
  };
}

/** What an address asks and nobody can answer: days, amounts and names that are none. As `name=value`, to be said where the reader looks. */
export function unreadFilters(query: URLSearchParams): string[] {
  const wrong: string[] = [];
  const check = (name: string, fits: (value: string) => boolean): void => {
    for (const value of several(query, name)) if (!fits(value)) wrong.push(`${name}=${value}`);
  };
  const one = (known: readonly string[]) => (value: string) => known.includes(value);
  const day = (value: string): boolean => parseIsoDay(value) !== undefined;
  check('on', one(NAMED_DAYS));
  check('from', day);
  check('to', day);
  check('part', one(PARTS_OF_DAY));
  check('access', one(FEATURES));
  check('how', one(WAYS));
  check('within', one(DISTANCES.map(String)));
  for (const name of ['free', 'ahead']) check(name, one(['1']));
  const amount = (query.get('upto') ?? '').trim().slice(0, MOST_LENGTH);
  if (amount && readAmount(amount) === undefined) wrong.push(`upto=${amount}`);
  return wrong.slice(0, MOST_TAGS);
}

/** The group that each choice belongs to; what was typed has none. */
const GROUP_OF = {
  kind: 'kind',
  place: 'place',
  area: 'area',
  venue: 'venue',
  by: 'by',
  near: 'near',
  days: 'days',
  part: 'part',
  free: 'cost',
  upto: 'cost',
  access: 'access',
  how: 'how',
  ahead: 'ahead',
  tag: 'tag',
  words: undefined,
} as const satisfies Record<string, FilterGroup | undefined>;

/** One thing that is chosen, as it stands in the address: each can be taken off by itself. */
export interface FilterPart {
  name: keyof typeof GROUP_OF;
  value: string;
}

/** The fields that hold several values, by their names in an address; in the order in which choices are said. */
const LISTS = {
  kind: 'kinds',
  tag: 'tags',
  venue: 'venues',
  place: 'places',
  area: 'areas',
  by: 'organizers',
  part: 'parts',
  access: 'access',
  how: 'ways',
} as const;

/** Each thing that is chosen, in the order in which it is said. */
export function filterParts(filters: Filters): FilterPart[] {
  const { near, days, free, upTo, goingAhead, words } = filters;
  const lists = (...names: (keyof typeof LISTS)[]): FilterPart[] =>
    names.flatMap((name) => filters[LISTS[name]].map((value): FilterPart => ({ name, value })));
  return [
    ...lists('kind', 'tag'),
    ...(words ? [{ name: 'words' as const, value: words }] : []),
    ...(free ? [{ name: 'free' as const, value: '1' }] : []),
    ...(upTo === undefined ? [] : [{ name: 'upto' as const, value: String(upTo) }]),
    ...(days ? [{ name: 'days' as const, value: days.named ?? '' }] : []),
    ...lists('part'),
    ...(near ? [{ name: 'near' as const, value: near.place }] : []),
    ...lists('venue', 'place', 'area', 'by', 'access', 'how'),
    ...(goingAhead ? [{ name: 'ahead' as const, value: '1' }] : []),
  ];
}

/** The choices without one of them. */
export function withoutPart(filters: Filters, { name, value }: FilterPart): Filters {
  switch (name) {
    case 'near':
      return { ...filters, near: undefined };
    case 'days':
      return { ...filters, days: undefined };
    case 'free':
      return { ...filters, free: false };
    case 'upto':
      return { ...filters, upTo: undefined };
    case 'ahead':
      return { ...filters, goingAhead: false };
    case 'words':
      return { ...filters, words: '' };
    default: {
      const field = LISTS[name];
      return { ...filters, [field]: filters[field].filter((one) => one !== value) };
    }
  }
}

/** What an address says of each name; empty = nothing. */
function written({ near, days, upTo, ...filters }: Filters): Record<FilterName, string> {
  const several = (values: readonly string[]): string => [...values].sort().join(',');
  const day = (at: EpochDay | undefined): string => (at === undefined ? '' : isoDay(at));
  const [from, to] = days && days.named === undefined ? [days.from, days.to] : [];
  return {
    kind: several(filters.kinds),
    place: several(filters.places),
    area: several(filters.areas),
    venue: several(filters.venues),
    by: several(filters.organizers),
    near: near?.place ?? '',
    within: near && near.km !== USUAL_DISTANCE ? String(near.km) : '',
    on: days?.named ?? '',
    from: day(from),
    to: day(to),
    part: several(filters.parts),
    free: filters.free ? '1' : '',
    upto: upTo === undefined ? '' : String(upTo),
    access: several(filters.access),
    how: several(filters.ways),
    ahead: filters.goingAhead ? '1' : '',
    tag: several(filters.tags),
    words: filters.words,
  };
}

/** The query of an address, `?kind=music&free=1`, or nothing; always in the same order, so that it caches. */
export function filterQuery(filters: Filters): string {
  const query = new URLSearchParams();
  const values = written(filters);
  for (const name of FILTER_NAMES) if (values[name]) query.set(name, values[name]);
  const text = query.toString().replaceAll('%2C', ',');
  return text ? `?${text}` : '';
}

/** The groups in which something is chosen. */
export const groupsChosen = (filters: Filters): ReadonlySet<FilterGroup | undefined> =>
  new Set(filterParts(filters).map(({ name }) => GROUP_OF[name]));

/** Do these leave anything out? */
export const isFiltered = (filters: Filters): boolean => filterParts(filters).length > 0;

/** What was typed, folded: words, and words that stand together; each must occur. */
export function searchWords({ words }: Pick<Filters, 'words'>): string[] {
  const pieces = [...words.matchAll(/["“”«]([^"“”«»]*)["“”»]|([^\s"“”«»]+)/gu)].map(([, together, alone]) => fold(together ?? alone ?? ''));
  return [...new Set(pieces.filter(Boolean))].slice(0, 8);
}

/** Escapes what LIKE would read as a pattern. */
export function likePattern(word: string): string {
  return `%${word.replace(/[\\%_]/g, (c) => `\\${c}`)}%`;
}

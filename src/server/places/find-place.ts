/** Where typed words may lie, from several sources together: the site's own gazetteer, addresses of its venues and of files, the world's towns, a service. */
import { isNotNull } from 'drizzle-orm';
import { type FoundPlace, type Gazetteer, type GazetteerEntry, searchGazetteer } from '@/core/geo/gazetteer';
import { distanceKm, type Point } from '@/core/geo/geo';
import { type TownMatch, townLabel } from '@/core/geo/towns';
import type { Db } from '../db/client';
import { venue } from '../db/schema';
import { readGazetteer } from '../site/read';
import type { World } from '../world/world';
import type { AddressBook } from './address-book';
import type { Geocoded } from './geocoder';

const MOST = 8;
/** What is known here goes before what the world knows, and of that what is near before what is far. */
const KNOWN_HERE = 0.1;
const NEAR_KM = 300;
const NEAR = 0.08;
/** Two of one name closer than this are one place. */
const SAME_KM = 3;

/** A street with its number as a gazetteer has it: the number is one of its ends. */
function streetEntry(street: string, town: string, island: string, point: Point): GazetteerEntry[] {
  const [, before, name, behind] = /^(\d{1,4}[a-z]?)?\s*,?\s*(.*?)\s*,?\s*(\d{1,4}[a-z]?)?$/i.exec(street.trim()) ?? [];
  if (!name) return [];
  const number = Number.parseInt(before ?? behind ?? '', 10);
  return [{ kind: 'street', name, town, island, line: [point], ...(number ? { numbers: [number, number] as [number, number] } : {}) }];
}

/** What the site's venues teach: their names, and the addresses that they were given. */
async function venueGazetteer(db: Db): Promise<Gazetteer> {
  const rows = await db
    .select({ name: venue.name, street: venue.street, town: venue.town, island: venue.island, lat: venue.lat, lng: venue.lng })
    .from(venue)
    .where(isNotNull(venue.lat))
    .limit(20_000);
  const entries = rows.flatMap(({ name, street, town, island, lat, lng }): GazetteerEntry[] => {
    if (lat === null || lng === null) return [];
    const point = { lat, lng };
    return [{ kind: 'landmark', name, town, island, line: [point] }, ...streetEntry(street, town, island, point)];
  });
  return { format: 1, entries };
}

function ofWorld(town: TownMatch): FoundPlace {
  const { name, region, country, lat, lng, likeness } = town;
  const point = { lat, lng };
  const label = townLabel(town);
  const entry: GazetteerEntry = { kind: 'town', name, town: name, island: '', line: [point] };
  return { entry, point, label, number: undefined, exactness: 'town', likeness, source: 'world', region, country };
}

/** Where places are looked for. */
interface PlaceSources {
  db: Db;
  world: World;
  /** addresses of files */
  addressBook?: Pick<AddressBook, 'find'> | undefined;
  /** a geocoder, where the site names one */
  service?: ((words: string, near: Point) => Promise<Geocoded>) | undefined;
}

/** What was found, and what could not be asked, in words. */
export interface FoundPlaces {
  places: FoundPlace[];
  wrong: string;
}

/** Shorter words are not sent to a service. */
const LEAST_ASKED = 3;

/** Places that words may mean, likest first, each with its source. */
export async function findPlaces({ db, world, addressBook, service }: PlaceSources, words: string, middle: Point): Promise<FoundPlaces> {
  const own = (source: 'site' | 'venues', gazetteer: Gazetteer): FoundPlace[] =>
    searchGazetteer(words, gazetteer, MOST).map((match) => ({ ...match, source, region: '', country: '' }));
  const asked = service && words.trim().length >= LEAST_ASKED ? service(words, middle) : undefined;
  const [site, venues, addresses, towns, geocoded] = await Promise.all([
    readGazetteer(db),
    venueGazetteer(db),
    addressBook?.find(words, middle, MOST),
    world.towns(words),
    asked,
  ]);
  const all = [...own('site', site), ...own('venues', venues), ...(addresses ?? []), ...(geocoded?.places ?? []), ...towns.map(ofWorld)];
  const rank = ({ likeness, source, point }: FoundPlace): number =>
    likeness + (source === 'world' || source === 'service' ? (distanceKm(point, middle) < NEAR_KM ? NEAR : 0) : KNOWN_HERE);
  const found: FoundPlace[] = [];
  for (const place of all.sort((a, b) => rank(b) - rank(a))) {
    // A street beside one of its houses says nothing more.
    const same = found.some(
      (other) =>
        other.entry.name === place.entry.name &&
        (place.number === undefined || other.number === place.number) &&
        distanceKm(other.point, place.point) < SAME_KM,
    );
    if (!same && found.length < MOST) found.push(place);
  }
  return { places: found, wrong: geocoded?.wrong ?? '' };
}

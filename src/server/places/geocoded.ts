/**
 * What an open geocoder answers: GeoJSON features with the parts of an address as properties, as several free search services do it. Each is
 * read by itself: one that is no place takes no other along.
 */
import { z } from 'zod';
import { isCountry } from '@/core/geo/countries';
import type { FoundPlace, GazetteerEntry } from '@/core/geo/gazetteer';

const text = z.string().trim().max(200).optional().catch(undefined);

const feature = z.object({
  geometry: z.object({
    type: z.literal('Point'),
    coordinates: z.tuple([z.number().min(-180).max(180), z.number().min(-90).max(90)]).rest(z.number()),
  }),
  properties: z.object({
    name: text,
    street: text,
    housenumber: text,
    postcode: text,
    city: text,
    town: text,
    village: text,
    state: text,
    countrycode: text,
    type: text,
  }),
});

const answer = z.object({ features: z.array(z.unknown()) });

/** The likeliest stands behind what the site itself knows exactly, and each after it a little lower. */
const FIRST = 0.88;
const STEP = 0.02;

type Properties = z.infer<typeof feature>['properties'];

function exactnessOf({ housenumber, type, street, name }: Properties): FoundPlace['exactness'] {
  if (housenumber) return 'house';
  if (type === 'street' || (street && !name)) return 'street';
  return ['city', 'locality', 'district', 'county', 'state', 'country'].includes(type ?? '') ? 'town' : 'landmark';
}

function placeOf({ geometry, properties }: z.infer<typeof feature>, at: number): FoundPlace | undefined {
  const [lng, lat] = geometry.coordinates;
  const { name, street, housenumber, postcode = '', city, town, village, state = '', countrycode = '' } = properties;
  const exactness = exactnessOf(properties);
  const isTown = exactness === 'town';
  const locality = (isTown ? name : (city ?? town ?? village)) ?? '';
  const way = street ?? (exactness === 'street' ? name : undefined);
  const line = way ? [housenumber, way].filter(Boolean).join(' ') : '';
  const named = isTown ? locality : line || name;
  if (!named) return undefined;
  const kind: GazetteerEntry['kind'] = isTown ? 'town' : line ? 'street' : 'landmark';
  const point = { lat, lng };
  const country = countrycode.toUpperCase();
  const parts = [named, name && name !== named && !isTown ? name : '', isTown ? '' : locality, state];
  return {
    entry: { kind, name: named, town: locality, island: '', line: [point] },
    point,
    label: parts.filter(Boolean).join(', '),
    number: Number.parseInt(housenumber ?? '', 10) || undefined,
    exactness,
    likeness: FIRST - at * STEP,
    source: 'service',
    region: state,
    country: isCountry(country) ? country : '',
    postcode,
  };
}

/** The places of an answer, in its order; undefined where it is no such answer at all. */
export function readGeocoded(json: unknown, most: number): FoundPlace[] | undefined {
  const read = answer.safeParse(json);
  if (!read.success) return undefined;
  const places = read.data.features.slice(0, most * 4).flatMap((one) => {
    const { success, data } = feature.safeParse(one);
    return success ? [data] : [];
  });
  // Features there were, and none of them a place: it is something else.
  if (read.data.features.length && !places.length) return undefined;
  return places.flatMap((one, i) => placeOf(one, i) ?? []).slice(0, most);
}

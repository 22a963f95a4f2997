/** What follows from the answers of a first visit: where the site is, and how dates, times and money read there. */
import { isZone } from '@/core/day/zone';
import { habitsOf, isCountry } from '@/core/geo/countries';
import type { Point } from '@/core/geo/geo';
import { type TownMatch, townLabel } from '@/core/geo/towns';
import type { SiteSettings } from '../site/settings';
import { type World, zoneAt } from '../world/world';
import type { Answers } from './state';

/** Where a site is. */
export interface Place extends Point {
  /** what it is called: its town, region and country */
  label: string;
  /** state, province or county in its own words; may be empty */
  region: string;
  country: string;
}

/** Settings that follow from a place. */
export type Following = Pick<SiteSettings, 'zone' | 'country' | 'firstWeekday' | 'hours' | 'date' | 'currency'>;

/** The answers with what follows from them. */
export interface Look {
  /** towns that what was typed may mean */
  towns: TownMatch[];
  /** the one that counts, or the point on the chart; undefined until there is any */
  place: Place | undefined;
  /** by the place alone */
  follows: Following;
  /** with what was chosen otherwise */
  settled: Following;
}

/** How a town is told from others in a form. */
export const townKey = ({ lat, lng }: Point): string => `${lat},${lng}`;

/** Where nothing is known yet: dates as most of the world has them. */
const NOWHERE: Following = { zone: 'UTC', country: '', firstWeekday: 0, hours: '24', date: 'day-month', currency: 'USD' };

/** Works out what the answers mean. */
export async function lookAt(world: World, answers: Answers): Promise<Look> {
  // Two names of one town at one place are one choice.
  const towns = (await world.towns(answers.town)).filter(
    (town, i, all) => all.findIndex((other) => townKey(other) === townKey(town)) === i,
  );
  const place = await placeOf(world, answers, towns);
  const country = isCountry(answers.country) ? answers.country : (place?.country ?? '');
  const habits = country ? habitsOf(country) : {};
  const currency = world.currencyOf(country) ?? NOWHERE.currency;
  const zone = place ? zoneAt(place) : NOWHERE.zone;
  const follows: Following = { ...NOWHERE, ...habits, zone, currency, country: place?.country ?? '' };
  return { towns, place, follows, settled: { ...follows, ...chosen(answers), country } };
}

async function placeOf(world: World, { place, lat, lng, town }: Answers, towns: readonly TownMatch[]): Promise<Place | undefined> {
  if (place === 'pin') {
    const [y, x] = [degrees(lat, 85), degrees(lng, 180)];
    if (y === undefined || x === undefined) return undefined;
    const pin = { lat: y, lng: x };
    const next = await world.nearestTown(pin);
    return { ...pin, label: town || (next ? next.name : ''), region: next?.region ?? '', country: next?.country ?? '' };
  }
  const one = towns.find((match) => townKey(match) === place) ?? towns[0];
  return one && { lat: one.lat, lng: one.lng, label: townLabel(one), region: one.region, country: one.country };
}

/** Degrees as people type them; undefined where that is none, or lies beyond `most`. */
function degrees(text: string, most: number): number | undefined {
  const value = /^[-+−]?\d{1,3}([.,]\d{1,8})?$/.test(text) ? Number(text.replace(',', '.').replace('−', '-')) : Number.NaN;
  return Math.abs(value) <= most ? value : undefined;
}

/** What somebody chose otherwise than it follows. */
function chosen({ zone, firstWeekday, hours, date, currency }: Answers): Partial<Following> {
  return {
    ...(isZone(zone) ? { zone } : {}),
    ...(firstWeekday ? { firstWeekday: Number(firstWeekday) } : {}),
    ...(hours ? { hours } : {}),
    ...(date ? { date } : {}),
    ...(/^[A-Z]{3}$/.test(currency) ? { currency } : {}),
  };
}

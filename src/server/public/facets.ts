/** How many dates each choice of a filter would show, given the other choices. */
import { type DateFacts, type FilterGroups, fitsGroup } from '@/core/filters/condition';
import { ONLINE } from '@/core/filters/filters';
import type { FactsGroup } from '@/core/finder/found';
import { type ReferenceData, topOf } from '../reference/read';

/** How many dates each box would leave, with everything else as it is chosen. */
export interface Facets {
  /** by category address, parents with their children's dates in them */
  kinds: Map<string, number>;
  places: Map<string, number>;
  free: number;
  total: number;
}

/** Counts dates beside each choice that they would be shown by. What was typed and tags count already in which dates these are. */
export function countFacets(alike: readonly FactsGroup[], groups: FilterGroups, reference: ReferenceData): Facets {
  const facets: Facets = { kinds: new Map(), places: new Map(), free: 0, total: 0 };
  for (const { facts, n } of alike) addGroup(facets, facts, n, groups, reference);
  return facets;
}

function addGroup(facets: Facets, facts: DateFacts, n: number, groups: FilterGroups, reference: ReferenceData): void {
  const kinds = fitsGroup(groups.kinds, facts);
  const places = fitsGroup(groups.places, facts);
  const free = fitsGroup(groups.free, facts);
  if (places && free) {
    const own = reference.category.get(facts.categoryId);
    const top = topOf(reference, facts.categoryId);
    countIn(facets.kinds, own?.slug, n);
    if (top !== own) countIn(facets.kinds, top?.slug, n);
  }
  if (kinds && free) {
    for (const town of townsOf(facts.venueIds, reference)) countIn(facets.places, town, n);
    if (facts.online) countIn(facets.places, ONLINE, n);
  }
  if (kinds && places && facts.free) facets.free += n;
  if (kinds && places && free) facets.total += n;
}

/** The towns of some venues, each once. */
function townsOf(venueIds: readonly string[], reference: ReferenceData): string[] {
  const towns = venueIds.flatMap((id) => reference.venue.get(id)?.town || []);
  return towns.length > 1 ? [...new Set(towns)] : towns;
}

function countIn(map: Map<string, number>, key: string | undefined, n: number): void {
  if (key) map.set(key, (map.get(key) ?? 0) + n);
}

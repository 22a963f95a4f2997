/** Zones as people name them: by a city, with how far it is from UTC. */
import type { PlainDateTime } from './plain-date-time';
import { instantToDateTime, offsetAt, offsetLabel, dateTimeToInstant } from './zone';

/** `Asia/Tokyo` as "Tokyo", `America/Argentina/Buenos_Aires` as "Buenos Aires", `UTC` as "UTC". */
export function zoneCity(zone: string): string {
  return (zone.split('/').at(-1) ?? zone).replaceAll('_', ' ');
}

/** "Tokyo, UTC+9", at an instant: the offset changes with the season. */
export function zoneLabel(zone: string, ms: number): string {
  const offset = offsetLabel(offsetAt(zone, ms));
  return zone === 'UTC' ? 'UTC' : `${zoneCity(zone)}, ${offset}`;
}

/** A wall time of one zone by the clock of another. A whole day is the same day everywhere. */
export function inZone(wall: PlainDateTime, from: string, to: string): PlainDateTime {
  return wall.minute === null || from === to ? wall : instantToDateTime(to, dateTimeToInstant(from, wall).ms);
}

/**
 * The zone whose time comes first: where there is a place, the time there, which is the listing's own; online the site's, for readers sit at
 * home. Everything that shows dates goes by it: sheets, lists, pages, files.
 */
export function firstZone(listing: { zone: string; attendance: string; hasPlace: boolean }, siteZone: string): string {
  return listing.attendance !== 'online' && listing.hasPlace ? listing.zone : siteZone;
}

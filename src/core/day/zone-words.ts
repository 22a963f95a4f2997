/** Zones as people name them: by a city, with how far it is from UTC. */
import type { PlainDateTime } from './plain-date-time';
import { dateTimeToInstant, instantToDateTime, offsetFromIntl, offsetLabel } from './zone';

/** `Asia/Tokyo` as "Tokyo", `America/Argentina/Buenos_Aires` as "Buenos Aires", `UTC` as "UTC". */
export function zoneCity(zone: string): string {
  return (zone.split('/').at(-1) ?? zone).replaceAll('_', ' ');
}

/** "UTC+9", at an instant. Lists name hundreds of zones, so the runtime is asked, which costs nothing beside finding a zone's transitions. */
export const zoneOffset = (zone: string, ms: number): string => offsetLabel(zone === 'UTC' ? 0 : offsetFromIntl(zone, ms));

/** "Tokyo, UTC+9", at an instant: the offset changes with the season. */
export function zoneLabel(zone: string, ms: number): string {
  return zone === 'UTC' ? 'UTC' : `${zoneCity(zone)}, ${zoneOffset(zone, ms)}`;
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

/** Which clock a time is of, where it is not the site's. */
import { zoneCity } from '@/core/day/zone-words';
import type { PublicDate } from '@/server/public/public-dates';

/** " Tokyo" behind a time that is not the site's. */
export function zoneWords({ zone, start_minute }: Pick<PublicDate, 'zone' | 'start_minute'>, siteZone: string): string {
  return zone && zone !== siteZone && start_minute !== null ? ` ${zoneCity(zone)}` : '';
}

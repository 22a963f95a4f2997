/** Which clock a time is of, where it is not the site's. */
import { zoneCity } from '@/core/day/zone-words';
import type { EffectiveDate } from '@/core/dates/effective-date';

/** " Tokyo" behind a time that is not the site's. */
export function zoneWords({ zone, startMinute }: Pick<EffectiveDate, 'zone' | 'startMinute'>, siteZone: string): string {
  return zone && zone !== siteZone && startMinute !== null ? ` ${zoneCity(zone)}` : '';
}

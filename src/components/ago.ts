/** How long ago something was, by the site's days. */
import { instantToDateTime } from '@/core/day/zone';
import { sayDistance } from '@/core/phrase/format';

/** `today`, `yesterday`, `3 days ago`. @param today the site's day @param zone the site's zone */
export const sayAgo = (at: Date, today: number, zone: string): string =>
  sayDistance(Math.min(0, instantToDateTime(zone, at.getTime()).day - today));

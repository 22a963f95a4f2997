/** Equinoxes and solstices (Meeus, "Astronomical Algorithms", chapter 27; within a minute of the almanacs between 1950 and 2050). */
import * as deltat from 'astronomia/deltat';
import * as solstice from 'astronomia/solstice';
import { MS_PER_UTC_DAY } from '../day/zone';

/** What the sun does, by where on the earth it is summer. */
export type Season = 'spring' | 'summer' | 'autumn' | 'winter';

/** The Julian day on which 1970 begins. */
const UNIX_EPOCH = 2_440_587.5;
const NORTH: readonly Season[] = ['spring', 'summer', 'autumn', 'winter'];
const SOUTH: readonly Season[] = ['autumn', 'winter', 'spring', 'summer'];

/**
 * When the seasons of a year begin.
 * @param lat the place's latitude in degrees: seasons are the other way round in the south
 * @returns instants in ms since 1970
 */
export function seasonsOf(year: number, lat: number): { season: Season; ms: number }[] {
  return [solstice.march, solstice.june, solstice.september, solstice.december].map((find, i) => {
    // Dynamical time is ahead of the clocks by some seconds.
    const ms = (find(year) - UNIX_EPOCH) * MS_PER_UTC_DAY - deltat.deltaT(year) * 1000;
    return { season: (lat < 0 ? SOUTH : NORTH)[i] as Season, ms };
  });
}

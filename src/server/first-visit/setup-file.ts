/** The five answers in a file, for setting a site up without a browser: `almanac setup --json FILE`. */
import { z } from 'zod';
import { STARTING_SETS } from '@/core/category/starting-sets';
import { isZone } from '@/core/day/zone';
import { isCountry } from '@/core/geo/countries';
import { type TownMatch, townLabel } from '@/core/geo/towns';
import { DATE_STYLES, HOUR_STYLES, WEEKDAYS } from '@/core/phrase/format';
import { invalid, read } from '../problem';
import { SENDERS } from '../site/settings';
import type { World } from '../world/world';
import { firstVisitWords } from '@/words/desk';
import { townKey } from './follows';
import { type Answers, NO_ANSWERS } from './state';

const w = firstVisitWords.wrong;

const words = (most: number) => z.string().trim().min(1).max(most);

/** What such a file holds; what is left out follows from the town. */
export const setupShape = z.strictObject({
  name: words(80),
  town: words(120).optional(),
  position: z.strictObject({ lat: z.number().min(-85).max(85), lng: z.number().min(-180).max(180) }).optional(),
  zone: z.string().refine(isZone).optional(),
  country: z.string().refine(isCountry).optional(),
  firstWeekday: z.enum(WEEKDAYS).optional(),
  hours: z.enum(HOUR_STYLES).optional(),
  date: z.enum(DATE_STYLES).optional(),
  currency: z
    .string()
    .regex(/^[A-Z]{3}$/)
    .optional(),
  holidays: z.enum(['none']).optional(),
  who: z.strictObject({ name: words(80), mail: words(200), password: z.string() }),
  kinds: z.enum(STARTING_SETS).default('place'),
  senders: z.enum(SENDERS).default('everybody'),
  passphrase: z.string().trim().max(80).default(''),
});

/** Nobody is there to look: a town counts when only one is called that, or the rest of what was said tells it from the others. */
function onlyTown(typed: string, towns: readonly TownMatch[]): TownMatch {
  const called = towns.filter(({ likeness }) => likeness === 1);
  const [only] = called;
  if (only && called.length === 1) return only;
  const offered = (called.length ? called : towns).slice(0, 5).map(townLabel).join('; ');
  throw invalid('town', offered ? w.whichTown({ town: typed, offered }) : w.noTown({ town: typed }));
}

/**
 * Reads such a file.
 * @throws Problem at what is missing, not understood, or could be several towns
 */
export async function readSetup(world: World, input: unknown): Promise<{ answers: Answers; password: string }> {
  const { who, position, town = '', firstWeekday, ...said } = read(setupShape, input);
  const { password, ...person } = who;
  const rest = { zone: '', country: '', hours: '', date: '', currency: '', holidays: '', ...said } as const;
  const weekday = firstWeekday === undefined ? '' : String(WEEKDAYS.indexOf(firstWeekday));
  const place = position
    ? { place: 'pin', lat: String(position.lat), lng: String(position.lng) }
    : { place: townKey(onlyTown(town, await world.towns(town))), lat: '', lng: '' };
  const answers: Answers = {
    ...NO_ANSWERS,
    ...rest,
    ...place,
    town,
    firstWeekday: weekday,
    whoName: person.name,
    mail: person.mail,
  };
  return { answers, password };
}

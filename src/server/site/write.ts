/** Changes to the site's settings. A new zone or horizon makes the date index anew, in the same transaction. */
import { eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { isCountry } from '@/core/geo/countries';
import { isZone } from '@/core/day/zone';
import { DATE_STYLES, HOUR_STYLES } from '@/core/phrase/format';
import { ENGLISH_TAGS } from '@/core/phrase/language';
import { readTileService } from '@/core/geo/tile-service';
import { LIST_PICTURES } from '@/core/validation/picture-checks';
import { originOf } from '@/core/text/origin';
import { ORGANIZER_FACTS, type OrganizerFact, VENUE_FACTS, type VenueFact } from '@/core/venue/shown-facts';
import { audited } from '../accounts/audit';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { setting, validationState } from '../db/schema';
import { invalid } from '../problem';
import { FILTER_GROUPS, type FilterGroup } from '@/core/filters/filters';
import { VIEW_NAMES, type ViewName } from '@/core/views/views';
import { RELATED_ORDERS, SENDERS, type SiteSettings } from './settings';
import { serverWords } from '@/words/desk';

const texts = serverWords.siteWrite;

const number = (min: number, max: number, what: string) =>
  z.coerce
    .number({ error: texts.isANumber({ what }) })
    .min(min, texts.isAtLeast({ what, min }))
    .max(max, texts.isAtMost({ what, max }));
const whole = (min: number, max: number, what: string) => number(min, max, what).int(texts.isAWholeNumber({ what }));

/** A sentence or two that readers see on pages. */
const words = () => z.string().trim().max(300, texts.atMost300Characters()).default('');

function isMapAddress(address: string): boolean {
  return address === '' || (/^https?:\/\/[^\s"<>]+$/.test(address) && address.includes('{lat}') && address.includes('{lng}'));
}

/** What may come in as settings. */
export const settingsInput = z.object({
  name: z.string().trim().min(1, texts.theNameIsMissing()).max(80, texts.atMost80Characters()),
  about: z.string().trim().max(300, texts.atMost300Characters()).default(''),
  address: z
    .string()
    .trim()
    .max(200)
    // People paste what their browser shows: a slash at the end, or nothing before the name.
    .transform((text) => (text ? (originOf(text) ?? originOf(`https://${text}`) ?? text) : ''))
    .pipe(z.string().regex(/^(https?:\/\/[^\s/]+)?$/, texts.writtenHttpsAlmanacExample()))
    .default(''),
  zone: z.string().refine(isZone, { error: texts.thisTimeZoneIs() }),
  lat: number(-90, 90, texts.theLatitude()),
  lng: number(-180, 180, texts.theLongitude()),
  firstWeekday: whole(0, 6, texts.theFirstWeekday()),
  firstView: z.enum(VIEW_NAMES),
  firstViewPhone: z.enum(['', ...VIEW_NAMES]).default(''),
  weekDays: z.enum(['all', 'work']).default('all'),
  hours: z.enum(HOUR_STYLES),
  date: z.enum(DATE_STYLES),
  currency: z
    .string()
    .trim()
    .toUpperCase()
    .regex(/^[A-Z]{3}$/, texts.threeLettersSuchAs()),
  country: z
    .string()
    .default('')
    .refine((code) => code === '' || isCountry(code), { error: texts.chooseOneOfThe() }),
  mapAddress: z
    .string()
    .trim()
    .max(300, texts.atMost300Characters())
    .refine(isMapAddress, {
      error: texts.writtenHttpsMapExample(),
    })
    .default(''),
  tileService: z
    .string()
    .trim()
    .max(400, texts.atMost400Characters())
    .refine((address) => !address || readTileService(address), { error: texts.writtenTileService() })
    .default(''),
  tileCredit: z.string().trim().max(300, texts.atMost300Characters()).default(''),
  geocoder: z
    .string()
    .trim()
    .max(300, texts.atMost300Characters())
    .regex(/^(https?:\/\/[^\s"<>]+)?$/, texts.writtenHttpsGeocoder())
    .refine((address) => !address || URL.canParse(address), { error: texts.writtenHttpsGeocoder() })
    .default(''),
  horizonMonths: whole(1, 120, texts.theHorizon()),
  secondLanguage: z.enum(['', 'fr']).default(''),
  english: z.enum(ENGLISH_TAGS).default('en'),
  listLength: whole(5, 200, texts.theLengthOfA()),
  listPictures: z.enum(LIST_PICTURES).default('headlines'),
  shortLength: whole(1, 50, texts.theLengthOfShort()),
  related: whole(0, 12, texts.theRelatedEvents()).default(4),
  relatedOrder: z.enum(RELATED_ORDERS).default('likest'),
  beforeFirst: words(),
  afterLast: words(),
  beforeFirstFrench: words(),
  afterLastFrench: words(),
  senders: z.enum(SENDERS).default('everybody'),
  passphrase: z.string().trim().max(80, texts.atMost80Characters()).default(''),
  mailFrom: z.string().trim().max(200).default(''),
});

/**
 * Settings that do not go together.
 * @throws Problem at the field that lacks something
 */
export function checkTogether({
  senders,
  passphrase,
  tileService,
  tileCredit,
}: Pick<SiteSettings, 'senders' | 'passphrase' | 'tileService' | 'tileCredit'>): void {
  if (tileService && !tileCredit) throw invalid('tileCredit', texts.tileCreditIsMissing());
  if (senders === 'passphrase' && !passphrase) throw invalid('passphrase', texts.thePassphraseIsMissing());
}

/** The place of a view among the tabs, as a field of the form: `view-month`. */
export const viewField = (name: ViewName): string => `view-${name}`;

/** The place of a group of filters on readers' form, as a field: `filter-kind`. */
export const filterField = (name: FilterGroup): string => `filter-${name}`;

/** Whether a fact of venues or organizers is shown, as a box of the form: `venue-phone`. */
export const factField = (of: 'venue' | 'organizer', fact: VenueFact | OrganizerFact): string => `${of}-${fact}`;

/** What is shown of venues and organizers: what is ticked. */
export function readShownFacts(fields: Readonly<Record<string, string>>): Pick<SiteSettings, 'venueShows' | 'organizerShows'> {
  return {
    venueShows: VENUE_FACTS.filter((fact) => fields[factField('venue', fact)]),
    organizerShows: ORGANIZER_FACTS.filter((fact) => fields[factField('organizer', fact)]),
  };
}

/** Names in the order of the numbers that stand beside them; one without a number is left out. Throws a Problem at the field. */
function readOrder<T extends string>(fields: Readonly<Record<string, string>>, names: readonly T[], fieldOf: (name: T) => string): T[] {
  const placed = names.flatMap((name, i) => {
    const text = (fields[fieldOf(name)] ?? '').trim();
    if (!text) return [];
    if (!/^\d{1,2}$/.test(text)) throw invalid(fieldOf(name), texts.aNumberOrNothing());
    // Two with the same number stand as they stood.
    return [{ name, at: Number(text) + i / 100 }];
  });
  return placed.sort((a, b) => a.at - b.at).map(({ name }) => name);
}

/** The filters that readers are offered, in the order of their numbers; none is a form of words alone. Throws a Problem at the field. */
export const readFilterOrder = (fields: Readonly<Record<string, string>>): FilterGroup[] => readOrder(fields, FILTER_GROUPS, filterField);

/** The views in the order of the numbers that stand beside them; one without a number is not offered. Throws a Problem at the field. */
export function readViews(fields: Readonly<Record<string, string>>, firstView: ViewName, firstViewPhone: ViewName | '' = ''): ViewName[] {
  const views = readOrder(fields, VIEW_NAMES, viewField);
  for (const first of [firstView, firstViewPhone])
    if (first && !views.includes(first)) throw invalid(viewField(first), texts.theFirstViewIs());
  return views;
}

/** Writes the settings, with their audit line. */
export async function saveSettings(tx: Db, settings: SiteSettings, by: Actor): Promise<void> {
  const [row] = await tx.select({ value: setting.value }).from(setting).where(eq(setting.key, 'site'));
  if (row)
    await tx
      .update(setting)
      .set({ value: settings, revision: sql`${setting.revision} + 1` })
      .where(eq(setting.key, 'site'));
  else await tx.insert(setting).values({ key: 'site', value: settings });
  // Proof has written its sentences down: in another style, zone or calendar it says others.
  const before = row?.value as Partial<SiteSettings> | undefined;
  if (PROOF_READS.some((name) => JSON.stringify(before?.[name]) !== JSON.stringify(settings[name]))) await tx.delete(validationState);
  await audited(tx, by, { kind: 'settings', id: 'site', what: { code: 'changed' } });
}

/** What Proof's sentences depend on. */
const PROOF_READS = [
  'hours',
  'date',
  'zone',
  'currency',
  'secondLanguage',
  'horizonMonths',
  'listPictures',
  'holidays',
  'holidayCountry',
  'holidayRegion',
  'holidayChoice',
] as const satisfies (keyof SiteSettings)[];

/** What a coordinator sets of the year's days, as a form sends it: with ticks, lines and a calendar's file, before anything is stored. */
import { z } from 'zod';
import { isCountry } from '@/core/geo/countries';
import { ymdOf } from '@/core/day/day';
import { FileError, readIcal } from '@/core/exchange/read-ical';
import { choiceOf, type CountryDay, type DayOffer, offersOf } from '@/core/holidays/country-days';
import { linesOfCalendar } from '@/core/holidays/from-calendar';
import { LONGEST_HOLIDAY_NAME, MOST_HOLIDAY_LINES, readHolidayLines, sayHolidayLines } from '@/core/holidays/holiday-lines';
import { SECOND_CALENDARS } from '@/core/phrase/second-calendar';
import { daysWords } from '@/words/desk';
import { invalid, read } from '../problem';
import { type DayPicture, MOST_DAY_PICTURES, type SiteSettings, YEAR_MARKS } from '../site/settings';
import { formHours } from '../venues/input';
import type { Region } from '../worker/holiday-tasks';
import type { YearMarks } from './year-marks';

const { form: w } = daysWords;

/** What is set here. */
export type DaySettings = Pick<
  SiteSettings,
  | 'holidayCountry'
  | 'holidayRegion'
  | 'holidayChoice'
  | 'holidays'
  | 'yearMarks'
  | 'secondCalendar'
  | 'dayPictures'
  | 'openHours'
  | 'closedOnRedDays'
>;

/** A box of the form, by the key of its holiday. */
export const tickField = (key: string): string => `day:${key}`;

/** The box that keeps the picture of a day, by the day's name. */
export const pictureField = (name: string): string => `picture:${name}`;

/** So many years are looked at, from this one: what moves is seen to move. */
const YEARS = 3;
/** A calendar of holidays is small. */
const MOST_BYTES = 2 * 1024 * 1024;

const input = z.object({
  holidayCountry: z
    .string()
    .default('')
    .refine((code) => code === '' || isCountry(code), { error: w.chooseACountry() }),
  holidayRegion: z.string().max(12).default(''),
  secondCalendar: z.enum(['', ...SECOND_CALENDARS]).default(''),
});

/** The country and region that a form with something wrong in it shows. */
export function shownOf(
  before: DaySettings,
  fields: Readonly<Record<string, string>>,
): Pick<DaySettings, 'holidayCountry' | 'holidayRegion' | 'holidayChoice'> {
  const asked = fields.holidayCountry ?? '';
  const holidayCountry = isCountry(asked) ? asked : '';
  const same = holidayCountry === before.holidayCountry;
  return { holidayCountry, holidayRegion: (fields.holidayRegion ?? '').slice(0, 12), holidayChoice: same ? before.holidayChoice : {} };
}

/** What a country offers. */
export interface CountryOffers {
  /** anything is known of it */
  known: boolean;
  regions: Region[];
  offers: DayOffer[];
}

/** What a country or a region of it offers, from this year on. */
export async function offersFor(
  yearMarks: Pick<YearMarks, 'regionsOf' | 'countryYear'>,
  {
    holidayCountry: country,
    holidayRegion: region,
    holidayChoice,
  }: Pick<DaySettings, 'holidayCountry' | 'holidayRegion' | 'holidayChoice'>,
  today: number,
): Promise<CountryOffers> {
  if (!country) return { known: true, regions: [], offers: [] };
  const { known, regions } = await yearMarks.regionsOf(country);
  const { year } = ymdOf(today);
  const days: CountryDay[] = [];
  for (let i = 0; i < YEARS; i++) days.push(...(await yearMarks.countryYear(country, region, year + i)));
  return {
    known,
    regions,
    offers: offersOf(
      days.filter((one) => one.first + one.days > today),
      holidayChoice,
    ),
  };
}

/**
 * Reads the form.
 * @param shown what the ticks are of: the country and region that the form was shown for
 * @throws Problem at the field that is wrong
 */
export async function readDaySettings(
  yearMarks: Pick<YearMarks, 'regionsOf' | 'countryYear'>,
  before: DaySettings,
  { fields, today }: { fields: Readonly<Record<string, string>>; today: number },
): Promise<DaySettings> {
  const { holidayCountry, holidayRegion: asked, secondCalendar } = read(input, fields);
  const { rules, wrong } = readHolidayLines(fields.holidays ?? '');
  if (wrong?.problem === 'long-name') throw invalid('holidays', w.longName({ number: wrong.number, most: LONGEST_HOLIDAY_NAME }));
  if (wrong) throw invalid('holidays', w.lineNotUnderstood({ number: wrong.number, line: wrong.line.slice(0, 80) }));
  if (rules.length > MOST_HOLIDAY_LINES) throw invalid('holidays', w.tooManyLines({ most: MOST_HOLIDAY_LINES, n: rules.length }));
  const same = before.holidayCountry === holidayCountry;
  const { regions } = holidayCountry ? await yearMarks.regionsOf(holidayCountry) : { regions: [] };
  // A region of another country is none of this one.
  const holidayRegion = regions.some(({ code }) => code === asked) ? asked : '';
  const choice = same ? before.holidayChoice : {};
  const now = { holidayCountry, holidayRegion, holidayChoice: choice };
  // Ticks are of the days that were shown: where another country or region was chosen since, its days are as usual.
  const shownHere = fields.shownCountry === holidayCountry && (fields.shownRegion ?? '') === holidayRegion;
  const { offers } = await offersFor(yearMarks, now, today);
  const ticked = new Set(offers.map(({ key }) => key).filter((key) => fields[tickField(key)] === 'on'));
  return {
    holidayCountry,
    holidayRegion,
    holidayChoice: shownHere ? choiceOf(offers, ticked, choice) : choice,
    holidays: rules,
    yearMarks: YEAR_MARKS.filter((mark) => fields[`mark:${mark}`] === 'on'),
    secondCalendar,
    dayPictures: readDayPictures(
      before.dayPictures,
      fields,
      namesWithPictures(
        rules,
        offers.filter(({ key }) => ticked.has(key)),
      ),
    ),
    ...readOwnHours(fields),
  };
}

/** The days that can carry a picture: the site's own lines and the chosen holidays, by their English names. */
export const namesWithPictures = (rules: DaySettings['holidays'], chosen: readonly Pick<DayOffer, 'names'>[]): string[] => [
  ...new Set([...rules.map(({ name }) => name), ...chosen.map(({ names }) => names.en)]),
];

const pictureInput = z.object({ pictureDay: z.string().max(300).default(''), pictureId: z.union([z.literal(''), z.uuid()]).default('') });

/** Those that keep their tick, and one more where a day and a picture are chosen. */
function readDayPictures(
  before: DaySettings['dayPictures'],
  fields: Readonly<Record<string, string>>,
  names: readonly string[],
): DayPicture[] {
  const { pictureDay: name, pictureId } = read(pictureInput, fields);
  const kept = before.filter((one) => fields[pictureField(one.name)] === 'on' && one.name !== name);
  if (!name && !pictureId) return kept;
  if (!name || !names.includes(name)) throw invalid('pictureDay', w.chooseTheDay());
  if (!pictureId) throw invalid('pictureId', w.chooseThePicture());
  if (kept.length >= MOST_DAY_PICTURES) throw invalid('pictureDay', w.tooManyPictures({ most: MOST_DAY_PICTURES }));
  return [...kept, { name, pictureId }];
}

function readOwnHours(fields: Readonly<Record<string, string>>): Pick<DaySettings, 'openHours' | 'closedOnRedDays'> {
  const { hours: openHours, problems } = formHours(fields);
  const [first] = problems;
  if (first) throw invalid(first.field, first.message);
  return { openHours, closedOnRedDays: fields.closedOnRedDays === 'on' };
}

/** What a calendar's file added to the lines, in words for the form. */
export interface AddedLines {
  text: string;
  added: number;
  left: string[];
}

/**
 * Adds the days of a calendar's file to lines that somebody writes; those that stand there already are not added again.
 * @throws Problem at the file's field
 */
export async function addCalendar(lines: string, file: FormDataEntryValue | null, zone: string): Promise<AddedLines> {
  if (!(file instanceof File) || file.size === 0) throw invalid('file', w.chooseAFile());
  if (file.size > MOST_BYTES) throw invalid('file', w.fileTooLarge());
  try {
    const { events, unreadable } = readIcal(await file.text(), { siteZone: zone, chosen: new Map(), candidates: [] });
    const { lines: found, left } = linesOfCalendar(events);
    const known = new Set(lines.split('\n').map((line) => line.trim()));
    const fresh = sayHolidayLines(found)
      .split('\n')
      .filter((line) => line && !known.has(line));
    const unread = unreadable.map(({ title, line }) => title || w.line({ line }));
    return { text: [lines.trimEnd(), ...fresh].filter(Boolean).join('\n'), added: fresh.length, left: [...left, ...unread] };
  } catch (error) {
    if (error instanceof FileError) throw invalid('file', error.message);
    throw error;
  }
}

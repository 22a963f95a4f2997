/** What the thread knows of countries' holidays: all of the world's, by rules that a package holds. */
import Holidays from 'date-holidays';
import { dayOf, parseIsoDay } from '@/core/day/day';
import { COUNTRY_DAY_TYPES, type CountryDay } from '@/core/holidays/country-days';
import { LANGUAGES } from '@/core/phrase/language';

/** The holidays of a country, or of a region of it, in a year. */
export interface CountryYearTask {
  task: 'country-year';
  country: string;
  /** empty = what the whole country has */
  region: string;
  year: number;
}

/** The regions of a country that have holidays of their own. */
export interface RegionsTask {
  task: 'regions';
  country: string;
}

/** A question about holidays. */
export type HolidayTask = CountryYearTask | RegionsTask;

/** A part of a country: its code within it, and its English name. */
export interface Region {
  code: string;
  name: string;
}

/** Its answer. Nothing is known of some countries: then there are no days and no regions. */
export type HolidayPart = { part: 'country-year'; days: CountryDay[] } | { part: 'regions'; known: boolean; regions: Region[] };

const DAY_MS = 86_400_000;
const SUBSTITUTE = / \(substitute day\)$/;

/** Answers a question about holidays. */
export function performHolidays(task: HolidayTask): HolidayPart {
  if (task.task === 'country-year') return { part: 'country-year', days: daysOf(task) };
  const { country } = task;
  const all = new Holidays();
  const states = Object.entries(all.getStates(country, 'en') ?? {});
  const regions = states.flatMap(([state, name]) => [
    { code: state, name },
    ...Object.entries(all.getRegions(country, state, 'en') ?? {}).map(([region, inner]) => ({
      code: `${state}-${region}`,
      name: `${name}: ${inner}`,
    })),
  ]);
  return { part: 'regions', known: country in all.getCountries('en'), regions: regions.sort((a, b) => a.name.localeCompare(b.name, 'en')) };
}

function daysOf({ country, region, year }: CountryYearTask): CountryDay[] {
  if (!country) return [];
  const [state, inner] = region.split('-');
  const source = new Holidays({ country, ...(state ? { state } : {}), ...(inner ? { region: inner } : {}) });
  // The same rules in the same order, named in each language.
  const [inEnglish = [], ...others] = LANGUAGES.map((language) => {
    source.setLanguages([language, 'en']);
    return source.getHolidays(year, language);
  });
  const named = others.map((days) => new Map(days.map(({ rule, date, name }) => [`${rule} ${date}`, name])));
  return inEnglish.flatMap(({ rule, date, name, type, start, end }) => {
    const first = parseIsoDay(date.slice(0, 10));
    if (first === undefined || first < dayOf(year, 1, 1)) return [];
    const names = Object.fromEntries(
      LANGUAGES.map((language, i) => [language, i === 0 ? name : (named[i - 1]?.get(`${rule} ${date}`) ?? name)]),
    ) as CountryDay['names'];
    const days = Math.max(1, Math.round((end.getTime() - start.getTime()) / DAY_MS));
    return [
      {
        key: name.replace(SUBSTITUTE, ''),
        names,
        type: COUNTRY_DAY_TYPES.find((one) => one === type) ?? 'observance',
        first,
        days,
      },
    ];
  });
}

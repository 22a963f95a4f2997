/** Countries by their codes (ISO 3166-1 alpha-2), and what usually follows from being in one: weeks, hours, dates. From the runtime's Intl (CLDR). */
import type { Style } from '../phrase/format';

/** Codes that Intl names and that are no country of their own. */
const NO_COUNTRY = new Set(['AC', 'CP', 'CQ', 'DG', 'EA', 'EU', 'EZ', 'IC', 'QO', 'TA', 'UN', 'XA', 'XB', 'ZZ']);

function* pairsOfLetters(): Generator<string> {
  for (let a = 65; a <= 90; a++) for (let b = 65; b <= 90; b++) yield String.fromCharCode(a, b);
}

/** All countries with their English names, in the order of these. */
function allCountries(): readonly (readonly [code: string, name: string])[] {
  const names = new Intl.DisplayNames('en', { type: 'region', fallback: 'none' });
  const found: [string, string][] = [];
  for (const code of pairsOfLetters()) {
    const name = NO_COUNTRY.has(code) ? undefined : names.of(code);
    // A code that was given up stands for the one that took its place.
    if (name && new Intl.Locale(`und-${code}`).region === code && !/^[A-Z]{2}$/.test(name)) found.push([code, name]);
  }
  return found.sort(([, a], [, b]) => a.localeCompare(b, 'en'));
}

/** Code and English name of each, by name. */
export const COUNTRY_NAMES: readonly (readonly [code: string, name: string])[] = allCountries();

const BY_CODE = new Map(COUNTRY_NAMES);

/** What a country is called in English; a code that is none stands for itself. */
export const countryName = (code: string): string => BY_CODE.get(code) ?? code;

/** Is it the code of a country? */
export const isCountry = (code: string): boolean => BY_CODE.has(code);

/** How a country writes time. */
export interface CountryHabits {
  /** 0 = Monday */
  firstWeekday: number;
  hours: Style['hours'];
  date: Style['date'];
}

/** Older runtimes have properties where newer have methods. */
type LocaleInfo = Intl.Locale & {
  weekInfo?: { firstDay: number };
  getWeekInfo?: () => { firstDay: number };
  hourCycles?: string[];
  getHourCycles?: () => string[];
};

/** What is usual in a country, by the language that most people there have. */
export function habitsOf(country: string): CountryHabits {
  const locale = new Intl.Locale(`und-${country}`).maximize();
  const local = new Intl.Locale(locale.language, { region: country }) as LocaleInfo;
  const firstDay = (local.getWeekInfo?.() ?? local.weekInfo)?.firstDay ?? 1;
  const cycle = (local.getHourCycles?.() ?? local.hourCycles)?.[0] ?? 'h23';
  return { firstWeekday: (firstDay + 6) % 7, hours: cycle === 'h12' || cycle === 'h11' ? '12' : '24', date: dateStyleOf(local) };
}

function dateStyleOf(locale: Intl.Locale): Style['date'] {
  const format = new Intl.DateTimeFormat([locale.toString(), 'en-GB'], {
    year: 'numeric',
    month: 'long',
    day: 'numeric',
    calendar: 'gregory',
    timeZone: 'UTC',
  });
  const order = format
    .formatToParts(Date.UTC(2027, 2, 7))
    .map(({ type }) => type)
    .filter((type) => type === 'year' || type === 'month' || type === 'day');
  if (order[0] === 'year') return 'iso';
  return order.indexOf('month') < order.indexOf('day') ? 'month-day' : 'day-month';
}

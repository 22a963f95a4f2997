/** The languages that readers' pages come in, and what of them Intl knows: names of days and months, numbers. */

/** The languages that readers' pages come in; the first is the site's own. */
export const LANGUAGES = ['en', 'fr'] as const;
/** One of {@link LANGUAGES}. */
export type Language = (typeof LANGUAGES)[number];

/** As pages and files name them (BCP 47). */
export const LANGUAGE_TAGS: Record<Language, string> = { en: 'en', fr: 'fr-CA' };

/** English as it is at home somewhere: what pages say of their language to browsers, feeds and search engines. */
export const ENGLISH_TAGS = [
  'en',
  ...['en-AU', 'en-BZ', 'en-CA', 'en-GB', 'en-GH', 'en-IE', 'en-IN', 'en-JM', 'en-KE', 'en-MT'],
  ...['en-NG', 'en-NZ', 'en-PH', 'en-PK', 'en-SG', 'en-TT', 'en-UG', 'en-US', 'en-ZA', 'en-ZM', 'en-ZW'],
] as const;
/** One of {@link ENGLISH_TAGS}. */
export type EnglishTag = (typeof ENGLISH_TAGS)[number];

/** The English of a country where it is at home, by the country's code; elsewhere English alone. */
export const englishOf = (country: string): EnglishTag => ENGLISH_TAGS.find((tag) => tag === `en-${country}`) ?? 'en';

/** How a page in a language names it (BCP 47), on a site whose English is of somewhere. */
export const tagOf = (language: Language, english: EnglishTag): string => (language === 'en' ? english : LANGUAGE_TAGS[language]);

/** Each in its own words. */
export const LANGUAGE_NAMES: Record<Language, string> = { en: 'English', fr: 'Français' };

/** What stands before the paths of a language's pages: nothing for English. */
export const languagePrefix = (language: Language): string => (language === 'en' ? '' : `/${language}`);

interface Names {
  long: readonly string[];
  short: readonly string[];
}

/** From January. */
function monthNames(tag: string): Names {
  const of = (month: 'long' | 'short'): string[] => {
    const format = new Intl.DateTimeFormat(tag, { month, timeZone: 'UTC' });
    return Array.from({ length: 12 }, (_, i) => format.format(Date.UTC(2027, i, 15)));
  };
  return { long: of('long'), short: of('short') };
}

/** From Monday: 1 March 2027 is one. */
function weekdayNames(tag: string): Names {
  const of = (weekday: 'long' | 'short'): string[] => {
    const format = new Intl.DateTimeFormat(tag, { weekday, timeZone: 'UTC' });
    return Array.from({ length: 7 }, (_, i) => format.format(Date.UTC(2027, 2, 1 + i)));
  };
  return { long: of('long'), short: of('short') };
}

/** The months in French, from the runtime's Intl. */
export const FRENCH_MONTHS = monthNames('fr-CA');
/** The weekdays in French; lundi is the first. */
export const FRENCH_WEEKDAYS = weekdayNames('fr-CA');

const NUMBERS: Record<Language, Intl.NumberFormat> = { en: new Intl.NumberFormat('en'), fr: new Intl.NumberFormat('fr-CA') };

/** `1,240`, `1 240` */
export const sayNumber = (n: number, language: Language): string => NUMBERS[language].format(n);

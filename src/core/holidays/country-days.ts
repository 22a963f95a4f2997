/** The holidays of a country or one of its regions, of which a site chooses its red-letter days. */
import type { EpochDay } from '../day/day';
import type { Language } from '../phrase/language';
import { addMark, type DayMarks } from './day-marks';
import type { DaySpan, PictureOf } from './holidays';

/** Of what kind a holiday is: everybody's day off, that of banks or schools, one of choice, or a day that is kept and worked. */
export const COUNTRY_DAY_TYPES = ['public', 'bank', 'school', 'optional', 'observance'] as const;

/** A holiday in one year. */
export interface CountryDay {
  /** the same in every year: its English name, which its substitutes have too */
  key: string;
  names: Record<Language, string>;
  type: (typeof COUNTRY_DAY_TYPES)[number];
  first: EpochDay;
  /** how many days it goes on for */
  days: number;
}

/** What was chosen otherwise than usual, by key. */
export type DayChoice = Readonly<Record<string, boolean>>;

/** Is a holiday one of a site's red-letter days? Days off are unless they were left out, others where they were chosen. */
export const isChosen = ({ key, type }: Pick<CountryDay, 'key' | 'type'>, choice: DayChoice): boolean =>
  Object.hasOwn(choice, key) ? choice[key] === true : type === 'public';

/** Adds the chosen days of a country. School holidays are said and leave numerals as they are; all others are red. */
export function addCountryMarks(
  marks: DayMarks,
  days: readonly CountryDay[],
  {
    choice,
    span: { from, to },
    language,
    pictureOf = () => undefined,
  }: { choice: DayChoice; span: DaySpan; language: Language; pictureOf?: PictureOf },
): void {
  for (const one of days) {
    if (!isChosen(one, choice)) continue;
    for (let day = Math.max(from, one.first); day <= Math.min(to, one.first + one.days - 1); day++)
      addMark(marks, day, {
        ...{ name: one.names[language], red: one.type !== 'school', begins: day === one.first },
        picture: pictureOf(one.names.en),
      });
  }
}

/** One holiday to choose or leave, with its next days. */
export interface DayOffer extends Pick<CountryDay, 'key' | 'names' | 'type'> {
  chosen: boolean;
  /** its first days in the years that were looked at */
  next: EpochDay[];
}

/** The holidays of some years to choose from: days off first, then by when they come next. */
export function offersOf(days: readonly CountryDay[], choice: DayChoice): DayOffer[] {
  const offers = new Map<string, DayOffer>();
  for (const { key, names, type, first } of [...days].sort((a, b) => a.first - b.first)) {
    const known = offers.get(key);
    if (known) known.next.push(first);
    else offers.set(key, { key, names, type, chosen: isChosen({ key, type }, choice), next: [first] });
  }
  const order = (offer: DayOffer): number => COUNTRY_DAY_TYPES.indexOf(offer.type);
  return [...offers.values()].sort((a, b) => order(a) - order(b) || (a.next[0] ?? 0) - (b.next[0] ?? 0));
}

/** What is stored of ticks: only what differs from what is usual, and choices of days that these years do not have. */
export function choiceOf(offers: readonly DayOffer[], ticked: ReadonlySet<string>, before: DayChoice): Record<string, boolean> {
  const offered = new Set(offers.map(({ key }) => key));
  const kept = Object.entries(before).filter(([key]) => !offered.has(key));
  const differ = offers
    .filter(({ key, type }) => ticked.has(key) !== (type === 'public'))
    .map(({ key }) => [key, ticked.has(key)] as const);
  return Object.fromEntries([...kept, ...differ]);
}

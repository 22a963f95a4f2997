/**
 * The one source of what the year says of days, for sheets, lists, Proof and the Desk: the chosen holidays of the site's country, its own
 * lines, the seasons and the changes of the clocks.
 */
import { type EpochDay, ymdOf } from '@/core/day/day';
import { instantToDateTime, MS_PER_MINUTE, MS_PER_UTC_DAY, transitionsOf } from '@/core/day/zone';
import { addCountryMarks, type CountryDay } from '@/core/holidays/country-days';
import { addMark, type DayMarks, redNames } from '@/core/holidays/day-marks';
import { addOwnMarks, type DaySpan } from '@/core/holidays/holidays';
import { addOwnHours } from '@/core/holidays/own-hours';
import type { Language } from '@/core/phrase/language';
import { seasonsOf } from '@/core/sky/seasons';
import { READERS_WORDS } from '@/words/readers';
import type { SiteSettings } from '../site/settings';
import type { HolidayPart, HolidayTask, Region } from '../worker/holiday-tasks';
import type { TaskWorker } from '../worker/task-worker';

/** The most years of countries that are kept. */
const MOST_KEPT = 300;

/** What the marks of a site depend on. */
export type MarkSettings = Pick<
  SiteSettings,
  | 'lat'
  | 'lng'
  | 'zone'
  | 'holidays'
  | 'holidayCountry'
  | 'holidayRegion'
  | 'holidayChoice'
  | 'yearMarks'
  | 'dayPictures'
  | 'openHours'
  | 'closedOnRedDays'
>;

/** What the year says of days. */
export class YearMarks {
  readonly #kept = new Map<string, Promise<CountryDay[]>>();

  /** @param worker the thread that knows of holidays */
  constructor(private readonly worker: Pick<TaskWorker, 'run'>) {}

  async #ask<P extends HolidayPart['part']>(task: HolidayTask, wanted: P): Promise<Extract<HolidayPart, { part: P }>> {
    for await (const part of this.worker.run(task)) if (part.part === wanted) return part as Extract<HolidayPart, { part: P }>;
    throw new Error(`the thread has no answer to “${task.task}”`);
  }

  /** The regions of a country that have holidays of their own; `known` = anything is known of the country. */
  async regionsOf(country: string): Promise<{ known: boolean; regions: Region[] }> {
    return this.#ask({ task: 'regions', country }, 'regions');
  }

  /** The holidays of a country, or of a region of it, in a year; kept. */
  countryYear(country: string, region: string, year: number): Promise<CountryDay[]> {
    const key = `${country} ${region} ${year}`;
    let days = this.#kept.get(key);
    if (!days) {
      days = this.#ask({ task: 'country-year', country, region, year }, 'country-year').then((part) => part.days);
      // A question that failed is asked again.
      days.catch(() => this.#kept.delete(key));
      const [oldest] = this.#kept.keys();
      if (this.#kept.size >= MOST_KEPT && oldest !== undefined) this.#kept.delete(oldest);
      this.#kept.set(key, days);
    }
    return days;
  }

  /** The names of red-letter days alone. What is said and leaves the numeral as it is need not be worked out for them. */
  async redNames(settings: MarkSettings, span: DaySpan): Promise<Map<EpochDay, string[]>> {
    const holidays = settings.holidays.filter(({ kind }) => kind !== 'sun' && kind !== 'span');
    return redNames(await this.between({ ...settings, holidays, yearMarks: [] }, span));
  }

  /** Everything that the year says of the days from one to another, both included, in a language; with the publisher's own hours where asked for. */
  async between(settings: MarkSettings, span: DaySpan, language: Language = 'en', { hours = false } = {}): Promise<DayMarks> {
    const marks: DayMarks = new Map();
    const { holidayCountry: country, holidayRegion: region, holidayChoice: choice } = settings;
    const pictures = new Map(settings.dayPictures.map(({ name, pictureId }) => [name, pictureId]));
    const pictureOf = (name: string): string | undefined => pictures.get(name);
    const [first, last] = [ymdOf(span.from).year, ymdOf(span.to).year];
    if (country) {
      // What begins in December may go on in January.
      for (let year = first - 1; year <= last; year++)
        addCountryMarks(marks, await this.countryYear(country, region, year), { choice, span, language, pictureOf });
    }
    addOwnMarks(marks, settings.holidays, span, { place: settings, pictureOf });
    if (settings.yearMarks.includes('seasons')) addSeasons(marks, settings, span, language);
    if (settings.yearMarks.includes('clocks')) addClockChanges(marks, settings, span, language);
    if (hours && settings.openHours) {
      const { year: w } = READERS_WORDS[language];
      const words = { open: w.open(), closed: w.closed(), openAllDay: w.openAllDay() };
      addOwnHours(marks, { hours: settings.openHours, closedOnRedDays: settings.closedOnRedDays, words }, span);
    }
    return marks;
  }
}

function addSeasons(marks: DayMarks, { lat, zone }: MarkSettings, { from, to }: DaySpan, language: Language): void {
  const { year: w } = READERS_WORDS[language];
  for (let year = ymdOf(from).year - 1; year <= ymdOf(to).year + 1; year++)
    for (const { season, ms } of seasonsOf(year, lat)) {
      const { day, minute } = instantToDateTime(zone, ms);
      if (day >= from && day <= to) addMark(marks, day, { name: w.seasons[season](), red: false, begins: true, minute });
    }
}

function addClockChanges(marks: DayMarks, { zone }: MarkSettings, { from, to }: DaySpan, language: Language): void {
  const { year: w } = READERS_WORDS[language];
  for (let year = ymdOf(from).year - 1; year <= ymdOf(to).year + 1; year++)
    for (const { at, before, after } of transitionsOf(zone, year)) {
      // By the clocks as they are before.
      const local = at + before;
      const day = Math.floor(local / MS_PER_UTC_DAY);
      const minute = Math.round((local - day * MS_PER_UTC_DAY) / MS_PER_MINUTE);
      const name = after > before ? w.clocksForward() : w.clocksBack();
      if (day >= from && day <= to && after !== before) addMark(marks, day, { name, red: false, begins: true, minute });
    }
}

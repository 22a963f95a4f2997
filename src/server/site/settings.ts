/** What a site is set to. One JSON value with a format number in the table of settings. */
import type { FilterGroup } from '@/core/filters/filters';
import type { ViewName } from '@/core/views/views';
import type { OpeningHours } from '@/core/venue/hours';
import type { HolidayRule } from '@/core/holidays/holidays';
import type { SecondCalendar } from '@/core/phrase/second-calendar';
import type { EnglishTag, Language } from '@/core/phrase/language';
import type { Style } from '@/core/phrase/format';
import type { ListPictures } from '@/core/validation/picture-checks';
import { ORGANIZER_FACTS, type OrganizerFact, VENUE_FACTS, type VenueFact } from '@/core/venue/shown-facts';

/** Orders of events like the one on a page. */
export const RELATED_ORDERS = ['likest', 'soonest'] as const;

/** Who may send events in: everybody, those who know a passphrase, nobody. */
export const SENDERS = ['everybody', 'passphrase', 'nobody'] as const;

/** What is said of days beside holidays: equinoxes and solstices, changes of the clocks. */
export const YEAR_MARKS = ['seasons', 'clocks'] as const;

/** One of them. */
export type YearMark = (typeof YEAR_MARKS)[number];

/** What a coordinator can set. */
export interface SiteSettings {
  format: 2;
  name: string;
  /** one sentence for search engines and the foot of pages */
  about: string;
  /** where the public reaches the site, without a slash at the end; empty = the address of the request */
  address: string;
  zone: string;
  lat: number;
  lng: number;
  firstWeekday: number;
  firstView: ViewName;
  /** the first one on a phone; empty = the same */
  firstViewPhone: ViewName | '';
  /** the views that stand as tabs, in their order; the first one is among them */
  views: ViewName[];
  /** what readers choose by, in the order of the form */
  filters: FilterGroup[];
  /** a week's sheet has seven days, or workdays alone until a reader asks for more */
  weekDays: 'all' | 'work';
  hours: Style['hours'];
  date: Style['date'];
  currency: string;
  /** how addresses are written where a venue names no country, ISO 3166-1 alpha-2; empty = street first */
  country: string;
  /** a map on another host that readers' browsers ask for: tiles or a style; empty = none */
  tileService: string;
  /** who made it, which stands below it */
  tileCredit: string;
  /** a map on the web that shows a place, with {lat} and {lng} where the degrees belong; empty = none is named */
  mapAddress: string;
  /** an open geocoder that is asked where addresses lie; empty = none is */
  geocoder: string;
  /** a second language that readers may choose; empty = there is none */
  secondLanguage: Exclude<Language, 'en'> | '';
  /** what English pages say their language is (BCP 47) */
  english: EnglishTag;
  horizonMonths: number;
  /** dates on one page of the list */
  listLength: number;
  /** which dates of a list have a picture: headlines a wide one, or every line a small one too */
  listPictures: ListPictures;
  /** lines in short lists: coming dates of a venue, an organizer, a listing */
  shortLength: number;
  /** events like the one on a page that are shown below it; 0 = none */
  related: number;
  /** in which order they stand */
  relatedOrder: (typeof RELATED_ORDERS)[number];
  /** what every event's page says until the day of its first date is over; empty = nothing */
  beforeFirst: string;
  /** what it says when its last date is over; empty = that its dates have passed */
  afterLast: string;
  /** both in the second language */
  beforeFirstFrench: string;
  afterLastFrench: string;
  /** what readers see of venues and of organizers beside name, address and dates */
  venueShows: VenueFact[];
  organizerShows: OrganizerFact[];
  /** the site's own lines of the year */
  holidays: HolidayRule[];
  /** whose holidays are its red-letter days, ISO 3166-1 alpha-2; empty = no country's */
  holidayCountry: string;
  /** a region of it, by its code within the country; empty = what all of it has */
  holidayRegion: string;
  /** days that are chosen or left otherwise than usual */
  holidayChoice: Record<string, boolean>;
  /** what else is said of days */
  yearMarks: YearMark[];
  /** another calendar that stands beside the days; empty = none */
  secondCalendar: SecondCalendar | '';
  /** small pictures of days, by their English names */
  dayPictures: DayPicture[];
  /** the publisher's own opening hours, which stand with the days of sheets; null = none do */
  openHours: OpeningHours | null;
  /** closed on red-letter days, whatever the hours say of their weekday */
  closedOnRedDays: boolean;
  /** who may send events in by the public form */
  senders: (typeof SENDERS)[number];
  /** what they type there, in capitals or not, where those who know it may */
  passphrase: string;
  /** who mails come from */
  mailFrom: string;
}

/** The picture of a day of the year. */
export interface DayPicture {
  name: string;
  pictureId: string;
}
/** The most pictures of days. */
export const MOST_DAY_PICTURES = 60;

/** Where the site is, in degrees; undefined while nobody has said so. */
export const positionOf = ({ lat, lng }: Pick<SiteSettings, 'lat' | 'lng'>): { lat: number; lng: number } | undefined =>
  lat || lng ? { lat, lng } : undefined;

/** A site of which nothing was set. */
export const DEFAULT_SETTINGS: SiteSettings = {
  format: 2,
  name: 'Plain Almanac',
  about: '',
  address: '',
  zone: 'UTC',
  lat: 0,
  lng: 0,
  tileService: '',
  tileCredit: '',
  firstWeekday: 0,
  firstView: 'month',
  firstViewPhone: '',
  views: ['month', 'week', 'day', 'list', 'map', 'places', 'year'],
  filters: ['days', 'kind', 'place', 'near', 'part', 'cost', 'access', 'how'],
  weekDays: 'all',
  hours: '24',
  date: 'day-month',
  currency: 'CAD',
  country: '',
  mapAddress: '',
  geocoder: '',
  secondLanguage: '',
  english: 'en',
  horizonMonths: 36,
  listLength: 40,
  listPictures: 'headlines',
  shortLength: 8,
  related: 4,
  relatedOrder: 'likest',
  beforeFirst: '',
  afterLast: '',
  beforeFirstFrench: '',
  afterLastFrench: '',
  venueShows: [...VENUE_FACTS],
  organizerShows: [...ORGANIZER_FACTS],
  holidays: [],
  holidayCountry: '',
  holidayRegion: '',
  holidayChoice: {},
  yearMarks: [],
  secondCalendar: '',
  dayPictures: [],
  openHours: null,
  closedOnRedDays: true,
  senders: 'everybody',
  passphrase: '',
  mailFrom: '',
};

/** What every event's page says up to its first date and when its last is over, in a language; empty = what pages say by themselves. */
export function eventWords(settings: SiteSettings, language: Language): { beforeFirst: string; afterLast: string } {
  const { beforeFirst, afterLast, beforeFirstFrench, afterLastFrench } = settings;
  return language === 'fr' ? { beforeFirst: beforeFirstFrench, afterLast: afterLastFrench } : { beforeFirst, afterLast };
}

/** How dates and times are written on this site. */
export function styleOf(settings: SiteSettings, language: Language = 'en'): Style {
  return { date: settings.date, hours: settings.hours, language };
}

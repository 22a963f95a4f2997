/** How a site writes days and times, and in which language. */
import type { Language } from './language';

/** How dates are written. */
export const DATE_STYLES = ['day-month', 'month-day', 'iso'] as const;
/** How hours are counted. */
export const HOUR_STYLES = ['24', '12'] as const;

/** How a site writes dates and hours, and in which language. */
export interface Style {
  date: (typeof DATE_STYLES)[number];
  hours: (typeof HOUR_STYLES)[number];
  /** absent = English */
  language?: Language | undefined;
}

/** How much of a day is said. */
export interface DayWords {
  weekday?: 'long' | 'short' | undefined;
  year?: boolean | undefined;
  month?: 'long' | 'short' | undefined;
}

/**
 * Is it the same event? Titles, times, places and people compared, each forgivingly, and weighed. The weights were set on one
 * generated corpus (tests/support/doubles.ts) and measured on others; docs/architecture.md has the figures.
 */
import type { PlainDateTime } from '../day/plain-date-time';
import { nameLikeness, type WordWeight, wordsLikeness } from './names';
import { tellingWords, wordLikeness } from './word-likeness';

/** What is compared of an event. */
export interface Sighting {
  title: string;
  /** coming dates in order, the first of many */
  dates: readonly PlainDateTime[];
  online: boolean;
  venues: readonly { id: string; name: string; parentId?: string | null }[];
  organizers: readonly string[];
}

/** How alike two listings are, from 0 to 1, as a whole and in each respect. */
export interface Alike {
  /** 0 to 1 */
  likeness: number;
  title: number;
  time: number;
  place: number;
  because: Because;
}

/** What makes two events alike: how near their titles, times and places are. */
export interface Because {
  titles: 'same' | 'alike';
  times: 'same' | 'hour' | 'near';
  places: 'online' | 'same' | 'alike' | 'unknown' | 'other';
}

const WEIGHTS = { title: 0.5, time: 0.24, place: 0.22, people: 0.04 } as const;
/** From here on two events are shown side by side. */
export const LOOKALIKE = 0.8;
/** Below this, titles speak of different things, wherever and whenever they are. */
const LEAST_TITLE = 0.55;

/** What is left of the likeness of titles that have a word each in the other's place. */
const EXCHANGED = 0.7;

/** Words that make two of one: a course for beginners is none for the advanced, part 1 is not part 2. */
const SIDES: readonly (readonly string[])[] = [
  ['junior', 'juniors', 'child', 'children', 'kids', 'youth', 'young', 'teen', 'teens'],
  ['senior', 'seniors', 'adult', 'adults', 'grown'],
  ['beginner', 'beginners', 'novice', 'novices', 'introduction', 'first'],
  ['advanced', 'improvers', 'experienced', 'second'],
  ['morning', 'matinee'],
  ['afternoon'],
  ['evening', 'night'],
  ['men', 'mens', 'boys'],
  ['women', 'womens', 'ladies', 'girls'],
  ['rehearsal', 'practice'],
  ['concert', 'performance', 'show'],
  ['upper'],
  ['lower'],
  ['north'],
  ['south'],
  ['cancelled'],
];
const OPPOSED: readonly (readonly [number, number])[] = [
  [0, 1],
  [2, 3],
  [4, 5],
  [4, 6],
  [5, 6],
  [7, 8],
  [9, 10],
  [11, 12],
  [13, 14],
];
const sideOf = new Map(SIDES.flatMap((words, side) => words.map((word) => [word, side] as const)));

/** Numbers and sides of the one that the other contradicts. */
function contradicts(mine: readonly string[], theirs: readonly string[]): boolean {
  const numbers = (words: readonly string[]): string[] => words.filter((w) => /^\d+$|^[ivx]{2,}$/.test(w));
  const [a, b] = [numbers(mine), numbers(theirs)];
  if (a.length && b.length && !a.some((n) => b.includes(n))) return true;
  const sides = (words: readonly string[]): Set<number> => new Set(words.flatMap((w) => sideOf.get(w) ?? []));
  const [s, t] = [sides(mine), sides(theirs)];
  return OPPOSED.some(([x, y]) => (s.has(x) && !s.has(y) && t.has(y) && !t.has(x)) || (s.has(y) && !s.has(x) && t.has(x) && !t.has(y)));
}

/** Titles by weight of their words; one that is the other with something behind is nearly the same. */
export function titleLikeness(a: string, b: string, weight: WordWeight): number {
  const [mine, theirs] = [tellingWords(a), tellingWords(b)];
  if (!mine.length || !theirs.length) return 0;
  if (contradicts(mine, theirs)) return Math.min(0.5, wordsLikeness(mine, theirs, weight));
  const alone = (words: readonly string[], others: readonly string[]): boolean =>
    words.some((w) => !others.some((o) => wordLikeness(w, o)));
  // Where each has a word that the other lacks, one stands in the other's place: "Harbour Choir Evening", "Harbour Rope Evening".
  const exchanged = alone(mine, theirs) && alone(theirs, mine);
  const whole = wordsLikeness(mine, theirs, weight) * (exchanged ? EXCHANGED : 1);
  // "Seed Swap" and "Seed Swap at the Glasshouse, bring jars": all words of the shorter, two of them at least, are in the longer.
  const [short, long] = mine.length <= theirs.length ? [mine, theirs] : [theirs, mine];
  const within = short.length >= 2 && short.every((word) => long.some((other) => wordLikeness(word, other) > 0.8));
  return within ? Math.max(whole, 0.86) : whole;
}

/** Minutes of a date since 1970-01-01; a whole day counts as its noon. */
const minuteOf = ({ day, minute }: PlainDateTime): number => day * 1440 + (minute ?? 720);

/** How much of the shorter list of dates has a like date in the other: at the same hour 1, an hour off less, on the same day little. */
export function timeLikeness(mine: readonly PlainDateTime[], theirs: readonly PlainDateTime[]): number {
  const [short, long] = mine.length <= theirs.length ? [mine, theirs] : [theirs, mine];
  if (!short.length) return 0;
  // Only dates of the other's days can be alike: one single date stands for itself, of many those within the other's span count.
  const [from, to] = [long[0]?.day ?? 0, long[long.length - 1]?.day ?? 0];
  const within = short.filter((date) => date.day >= from - 1 && date.day <= to + 1);
  if (!within.length) return 0;
  const sum = within.reduce((total, date) => total + Math.max(0, ...long.map((other) => dateLikeness(date, other))), 0);
  return sum / within.length;
}

function dateLikeness(a: PlainDateTime, b: PlainDateTime): number {
  if (Math.abs(a.day - b.day) > 1) return 0;
  if (a.day === b.day && (a.minute === null || b.minute === null)) return 0.75;
  const apart = Math.abs(minuteOf(a) - minuteOf(b));
  if (apart <= 15) return 1;
  if (apart <= 60) return 0.85;
  if (apart <= 120) return 0.6;
  // Half past seven in the morning for half past seven in the evening is a usual slip.
  if (apart === 720 && a.day === b.day) return 0.7;
  return a.day === b.day ? 0.25 : 0;
}

function placeLikeness(a: Sighting, b: Sighting): number {
  if (a.online && b.online) return 0.8;
  if (!a.venues.length || !b.venues.length) return 0.6;
  let best = 0;
  for (const one of a.venues)
    for (const other of b.venues) {
      if (one.id === other.id) return 1;
      const sameHall = one.id === other.parentId || other.id === one.parentId || (one.parentId && one.parentId === other.parentId);
      best = Math.max(best, sameHall ? 0.7 : nameLikeness(one.name, other.name) * 0.9);
    }
  return best < 0.5 ? 0 : best;
}

/** Could they be one event, by their titles alone? What says no here is none whatever its time, place and people are. */
export function mayBeAlike(a: string, b: string, weight: WordWeight): boolean {
  const title = titleLikeness(a, b, weight);
  return title >= LEAST_TITLE && WEIGHTS.title * title + WEIGHTS.time + WEIGHTS.place + WEIGHTS.people >= LOOKALIKE;
}

/** How likely two listings are one event, and why. */
export function likenessOf(a: Sighting, b: Sighting, weight: WordWeight): Alike {
  const title = titleLikeness(a.title, b.title, weight);
  const time = title < LEAST_TITLE ? 0 : timeLikeness(a.dates, b.dates);
  const place = placeLikeness(a, b);
  const people = a.organizers.length && b.organizers.length ? (a.organizers.some((o) => b.organizers.includes(o)) ? 1 : 0.2) : 0.6;
  const sum = WEIGHTS.title * title + WEIGHTS.time * time + WEIGHTS.place * place + WEIGHTS.people * people;
  // At no common time it is another date of the same thing at most; in another place at another hour it is another evening.
  const likeness = title < LEAST_TITLE || time < 0.5 ? Math.min(sum, 0.5) : sum;
  return { likeness, title, time, place, because: becauseOf(title, time, place, a.online && b.online) };
}

function becauseOf(title: number, time: number, place: number, online: boolean): Because {
  const near = (): Because['places'] => (place > 0.97 ? 'same' : place > 0.6 ? 'alike' : place > 0.3 ? 'unknown' : 'other');
  return {
    titles: title > 0.97 ? 'same' : 'alike',
    times: time > 0.97 ? 'same' : time > 0.8 ? 'hour' : 'near',
    places: online ? 'online' : near(),
  };
}

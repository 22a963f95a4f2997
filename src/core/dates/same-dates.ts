/**
 * Which dates of a listing are still the same dates after its repeats were changed. What hangs on a date (its address, who comes to it)
 * goes where the date goes, so this decides by rules that can be said:
 *
 * 1. A date with the same original start is the same date, whatever else was changed about it.
 * 2. Of the others, those of one day are the same dates in order of their times: the rule was retimed.
 * 3. Of those left, each is the nearest of the new ones in order, as many as can be, within half of the listing's usual gap but at least
 *    six days: a series goes from Tuesday to Thursday, a yearly fair from June to July.
 * 4. The only date of a listing is its only date afterwards, wherever it goes.
 *
 * Days are integers since 1970-01-01, minutes count from midnight, both by the listing's clock.
 */
import type { PlainDateTime } from '../day/plain-date-time';
import { compareDateTime, isoDateTime } from '../day/plain-date-time';

/** A date that has an id. */
export interface KnownDate {
  id: string;
  /** the start that its rule gives it */
  original: PlainDateTime;
}

/** The former ids that dates keep, and the dates that are no more. */
export interface DateMatch {
  /** the ids that new dates keep, by the text form of their original start */
  kept: Map<string, string>;
  /** the dates that are no more, in order: each id that was given is kept or here */
  ended: KnownDate[];
}

/** A date goes at least so far, in days, without becoming another. */
const LEAST_REACH = 6;

/**
 * Finds the dates that go on. `before` and `after` may come in any order; no two of either have one original start. The work grows with
 * the number of dates times those within reach of one.
 */
export function matchDates(before: readonly KnownDate[], after: readonly PlainDateTime[]): DateMatch {
  const kept = new Map<string, string>();
  const keep = ({ id }: KnownDate, now: PlainDateTime): void => void kept.set(isoDateTime(now), id);
  const olds = [...before].sort((a, b) => compareDateTime(a.original, b.original));
  const news = [...after].sort(compareDateTime);
  const [only, onlyNow] = [olds[0], news[0]];
  if (only && onlyNow && olds.length === 1 && news.length === 1) {
    keep(only, onlyNow);
    return { kept, ended: [] };
  }

  let left = pairUp(olds, news, keep, sameStarts);
  left = pairUp(left.olds, left.news, keep, sameDays);
  const reach = reachOf(olds);
  left = pairUp(left.olds, left.news, keep, (o, n) => nearestInOrder(o, n, reach));
  return { kept, ended: left.olds };
}

/** Indices of an old and of a new date. */
type Pair = readonly [number, number];
type Rule = (olds: readonly KnownDate[], news: readonly PlainDateTime[]) => Pair[];

interface Left {
  olds: KnownDate[];
  news: PlainDateTime[];
}

function pairUp(
  olds: readonly KnownDate[],
  news: readonly PlainDateTime[],
  keep: (old: KnownDate, now: PlainDateTime) => void,
  rule: Rule,
): Left {
  const pairs = rule(olds, news);
  for (const [o, n] of pairs) keep(olds[o] as KnownDate, news[n] as PlainDateTime);
  const [goneOld, goneNew] = [new Set(pairs.map(([o]) => o)), new Set(pairs.map(([, n]) => n))];
  return { olds: olds.filter((_, i) => !goneOld.has(i)), news: news.filter((_, i) => !goneNew.has(i)) };
}

const sameStarts: Rule = (olds, news) => alike(olds, news, compareDateTime);

/** Of each day the first with the first, the second with the second. */
const sameDays: Rule = (olds, news) => alike(olds, news, (old, now) => old.day - now.day);

/** Goes along two ordered lists together and pairs what `order` finds equal. */
function alike(
  olds: readonly KnownDate[],
  news: readonly PlainDateTime[],
  order: (old: PlainDateTime, now: PlainDateTime) => number,
): Pair[] {
  const pairs: Pair[] = [];
  for (let o = 0, n = 0; o < olds.length && n < news.length; ) {
    const which = order((olds[o] as KnownDate).original, news[n] as PlainDateTime);
    if (which === 0) pairs.push([o++, n++]);
    else if (which < 0) o++;
    else n++;
  }
  return pairs;
}

/** Half of the usual gap between dates, in days: the median, so that one long pause does not count. */
function reachOf(olds: readonly KnownDate[]): number {
  const gaps = olds.slice(1).map((date, i) => date.original.day - (olds[i] as KnownDate).original.day);
  const usual = gaps.sort((a, b) => a - b)[Math.floor(gaps.length / 2)] ?? 0;
  return Math.max(LEAST_REACH, Math.floor(usual / 2));
}

const minutesOf = ({ day, minute }: PlainDateTime): number => day * 1440 + (minute ?? 0);

/** How good a choice of pairs is: first how many, then how little they moved in all, in minutes. */
interface Score {
  pairs: number;
  moved: number;
}

const NONE: Score = { pairs: 0, moved: 0 };
const better = (a: Score, b: Score): Score => (b.pairs > a.pairs || (b.pairs === a.pairs && b.moved < a.moved) ? b : a);
const same = (a: Score, b: Score): boolean => a.pairs === b.pairs && a.moved === b.moved;

/** The best for the first olds and the first `from`, `from + 1` … `to` news. */
interface ScoreRow {
  from: number;
  to: number;
  best: Score[];
}

/**
 * The pairs in order that are most, and among those moved least in all: the best for every number of first olds and first news, from the
 * best for fewer. A row holds only what lies within reach of its old date; both lists are ordered, so rows begin ever later.
 */
function nearestInOrder(olds: readonly KnownDate[], news: readonly PlainDateTime[], reach: number): Pair[] {
  const rows: ScoreRow[] = [];
  const best = (o: number, n: number): Score => {
    const row = rows[o - 1];
    return row ? (row.best[Math.min(n, row.to) - row.from] ?? NONE) : NONE;
  };
  let [from, to] = [0, 0];
  olds.forEach(({ original }, o) => {
    while (from < news.length && (news[from] as PlainDateTime).day < original.day - reach) from++;
    while (to < news.length && (news[to] as PlainDateTime).day <= original.day + reach) to++;
    const row: ScoreRow = { from, to, best: [best(o, from)] };
    for (let n = from; n < to; n++) {
      const before = best(o, n);
      const paired = { pairs: before.pairs + 1, moved: before.moved + Math.abs(minutesOf(news[n] as PlainDateTime) - minutesOf(original)) };
      row.best.push(better(better(best(o, n + 1), row.best.at(-1) ?? NONE), paired));
    }
    rows.push(row);
  });

  const pairs: Pair[] = [];
  for (let o = olds.length, n = news.length; o > 0; ) {
    const row = rows[o - 1] as ScoreRow;
    n = Math.min(n, row.to);
    if (n <= row.from || same(best(o, n), best(o - 1, n))) o--;
    else if (same(best(o, n), best(o, n - 1))) n--;
    else pairs.push([--o, --n]);
  }
  return pairs.reverse();
}

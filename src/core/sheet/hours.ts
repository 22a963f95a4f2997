/**
 * Days as ledgers of hours: what has a time stands as a block at its hours, in lanes beside what overlaps it; whole days and what goes on for days
 * are bands above. Nothing is laid over another, and what has no room is counted, never lost. Minutes count from a day's midnight, by the clock.
 */
import type { EpochDay } from '../day/day';
import { type Band, compareSheetDates, layBands, type SheetDate } from './month';

/** What a ledger of hours must know of a date. */
export interface HourDate extends SheetDate {
  /** the day and minute at which it ends, exclusive; null = no end is given */
  end: { day: EpochDay; minute: number } | null;
}

/** A date's hours on one day. */
export interface Block<T> {
  date: T;
  /** minutes of the day; `to` may be 1440, and is `from` where no end is given */
  from: number;
  to: number;
  /** its column, and over how many it may stretch to the right */
  lane: number;
  span: number;
  /** how many columns there are where it stands */
  lanes: number;
  /** it began the day before, or goes on after midnight */
  opensBefore: boolean;
  opensAfter: boolean;
}

/** One day: its blocks, and what found no room, in order. */
export interface HourDay<T> {
  day: EpochDay;
  blocks: Block<T>[];
  folded: T[];
  /** all dates that touch the day, shown or not */
  count: number;
}

/** A stretch of the hours that are shown; one that is folded has nothing in it and takes little room. */
export interface HourSpan {
  /** whole hours, `to` excluded */
  from: number;
  to: number;
  folded: boolean;
}

/** Some days side by side. */
export interface HourSheet<T> {
  days: HourDay<T>[];
  /** whole days and several days; columns count the days */
  bands: Band<T>[];
  /** how many lanes the bands take */
  lanes: number;
  hours: HourSpan[];
}

/** How much room there is. */
export interface HourOptions {
  /** the days, side by side in this order */
  days: readonly EpochDay[];
  /** so many blocks stand beside each other; what overlaps more folds, but for headlines */
  mostLanes: number;
  /** lanes at most for bands; headlines have one always */
  mostBands: number;
  /** the first line of a block takes so many minutes' height, however short the date is */
  least: number;
  /** hours that are shown even when they are empty */
  usual: { from: number; to: number };
}

const DAY = 1440;
/** What goes on past this minute of the next day is no late evening but several days. */
const MORNING = 12 * 60;

/** Does a date stand above the hours: a whole day, or several? */
export function isBand({ from, minute, end }: HourDate): boolean {
  if (minute === null) return true;
  return end !== null && (end.day > from + 1 || (end.day === from + 1 && end.minute > MORNING));
}

/** Does a date last for days, and not only past midnight? */
export const lastsForDays = (date: HourDate): boolean => date.to > date.from && isBand(date);

/** A date's hours on a day; undefined = it has none there. */
function piece<T extends HourDate>(date: T, day: EpochDay): Omit<Block<T>, 'lane' | 'span' | 'lanes'> | undefined {
  const { from, end } = date;
  const minute = date.minute ?? 0;
  if (day === from) {
    const opensAfter = end !== null && end.day > from && end.minute > 0;
    const to = end === null ? minute : end.day > from ? DAY : Math.max(end.minute, minute);
    return { date, from: minute, to, opensBefore: false, opensAfter };
  }
  if (end?.day === day && day === from + 1 && end.minute > 0)
    return { date, from: 0, to: end.minute, opensBefore: true, opensAfter: false };
  return undefined;
}

/** Is a date on a day: a band on all of its days, what has hours where these are? */
export const isOnDay = (date: HourDate, day: EpochDay): boolean =>
  isBand(date) ? date.from <= day && date.to >= day : piece(date, day) !== undefined;

/** Lays dates out on days of hours. `dates` may be in any order and may lie outside of the days. */
export function layHours<T extends HourDate>(dates: readonly T[], options: HourOptions): HourSheet<T> {
  const sorted = [...dates].sort(compareSheetDates);
  const above = sorted.filter(isBand);
  const timed = sorted.filter((date) => !isBand(date));
  const { bands, hidden } = layBands(options.days, above, options.mostBands);
  const days = options.days.map((day, column): HourDay<T> => {
    const pieces = timed.flatMap((date) => piece(date, day) ?? []);
    const { blocks, folded } = placeBlocks(pieces, options);
    const here = bands.filter((band) => band.fromColumn <= column && band.toColumn >= column).length;
    const unseen = hidden.filter((date) => date.from <= day && date.to >= day);
    return { day, blocks, folded: [...unseen, ...folded].sort(compareSheetDates), count: pieces.length + here + unseen.length };
  });
  const lanes = bands.reduce((most, band) => Math.max(most, band.lane + 1), 0);
  return { days, bands, lanes, hours: hoursOf(days, options.usual) };
}

/** Where a block's height ends: its own end, or that of its first line. */
const foot = ({ from, to }: { from: number; to: number }, least: number): number => Math.max(to, from + least);

/**
 * Lanes are given from the left, headlines first and then in order of the start; a block that finds none free folds. Blocks that hang together
 * share the width of their lanes, and one with room to its right takes it.
 */
function placeBlocks<T extends HourDate>(
  pieces: Omit<Block<T>, 'lane' | 'span' | 'lanes'>[],
  { mostLanes, least }: HourOptions,
): { blocks: Block<T>[]; folded: T[] } {
  const lanes: { from: number; to: number }[][] = [];
  const free = (lane: number, from: number, to: number): boolean =>
    !(lanes[lane] ?? []).some((other) => other.from < to && other.to > from);
  const folded: T[] = [];
  const blocks: Block<T>[] = [];
  const byWeight = [...pieces].sort((a, b) => Number(b.date.headline) - Number(a.date.headline) || a.from - b.from || b.to - a.to);
  for (const one of byWeight) {
    const [from, to] = [one.from, foot(one, least)];
    let lane = 0;
    while (!free(lane, from, to)) lane++;
    if (lane >= mostLanes && !one.date.headline) {
      folded.push(one.date);
      continue;
    }
    lanes[lane] = [...(lanes[lane] ?? []), { from, to }];
    blocks.push({ ...one, lane, span: 1, lanes: 1 });
  }
  blocks.sort((a, b) => a.from - b.from || a.lane - b.lane);
  for (const cluster of clustersOf(blocks, least)) {
    const width = cluster.reduce((most, { lane }) => Math.max(most, lane + 1), 1);
    for (const block of cluster) {
      block.lanes = width;
      while (block.lane + block.span < width && free(block.lane + block.span, block.from, foot(block, least))) block.span++;
    }
  }
  return { blocks, folded };
}

/** Blocks that hang together: each overlaps one before it. `blocks` in order of their start. */
function clustersOf<T>(blocks: readonly Block<T>[], least: number): Block<T>[][] {
  const clusters: Block<T>[][] = [];
  let until = Number.NEGATIVE_INFINITY;
  for (const block of blocks) {
    if (block.from >= until) clusters.push([]);
    clusters.at(-1)?.push(block);
    until = Math.max(until, foot(block, least));
  }
  return clusters;
}

/** An empty stretch outside of the usual hours folds when it is so many hours long. */
const WORTH_FOLDING = 2;

/** Which hours are shown: the usual ones, and those that something is in; long empty stretches of night fold. */
function hoursOf<T>(days: readonly HourDay<T>[], usual: { from: number; to: number }): HourSpan[] {
  const used = Array.from({ length: 24 }, (_, hour) => hour >= usual.from && hour < usual.to);
  for (const { blocks } of days)
    for (const { from, to } of blocks) for (let hour = Math.floor(from / 60); hour * 60 < Math.max(to, from + 1); hour++) used[hour] = true;
  const spans: HourSpan[] = [];
  for (let hour = 0; hour < 24; ) {
    let end = hour + 1;
    while (end < 24 && used[end] === used[hour]) end++;
    spans.push({ from: hour, to: end, folded: !used[hour] && end - hour >= WORTH_FOLDING });
    hour = end;
  }
  // What is shown and what is too short to fold stand together.
  const merged: HourSpan[] = [];
  for (const span of spans) {
    const last = merged.at(-1);
    if (last && !last.folded && !span.folded) last.to = span.to;
    else merged.push({ ...span });
  }
  return merged;
}

/** A folded stretch takes the height of so many hours. */
export const FOLDED_HEIGHT = 0.6;

/** How far down a minute of the day is, in heights of an hour. */
export function downTo(minute: number, hours: readonly HourSpan[]): number {
  let down = 0;
  for (const { from, to, folded } of hours) {
    const whole = folded ? FOLDED_HEIGHT : to - from;
    if (minute >= to * 60) down += whole;
    else if (minute > from * 60) return down + (whole * (minute - from * 60)) / ((to - from) * 60);
    else return down;
  }
  return down;
}

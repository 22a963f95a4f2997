/**
 * A listing in one line: "Choir practice tue 7pm at the Old Hall, free, music". What is money, a place, people or a kind is taken
 * out of it; the phrase reader takes the dates; what nobody understood is the title. Offsets count UTF-16 units of the line.
 */
import { nameLikeness } from '../match/names';
import { tellingWords, wordsOf } from '../match/word-likeness';
import type { Cost } from '../listing/content';
import { readMoney } from '../listing/cost';
import { type PhraseProblem, type Reading, readAmongWords, type Setting } from '../phrase/read/read-phrase';
import type { Recurrence } from '../recurrence/model';
import { canonical } from '../text/canonical-json';

/** The names that a line may hold: venues, organizers and categories of the site. */
export interface Known {
  id: string;
  name: string;
}

/** From which moment and in which style a line is read. */
export interface LineSetting extends Omit<Setting, 'phrase'> {
  venues: readonly Known[];
  organizers: readonly Known[];
  categories: readonly Known[];
  currency: string;
}

/** What the parts of a line can be. */
export const PART_KINDS = ['title', 'when', 'venue', 'place', 'organizer', 'category', 'cost'] as const;
/** One of {@link PART_KINDS}. */
export type PartKind = (typeof PART_KINDS)[number];

/** A piece of the line and what it was taken for. */
export interface LinePart {
  kind: PartKind;
  from: number;
  to: number;
  text: string;
}

/** A line read: its parts in their places, and what they make of a listing. */
export interface ReadLine {
  title: string;
  recurrence: Recurrence | null;
  /** the words that say when, for showing and correcting */
  when: string;
  venueId: string | null;
  /** the words for a place that is no venue yet; empty when a venue was found, or no place was said */
  place: string;
  organizerId: string | null;
  categoryId: string | null;
  cost: Cost;
  parts: LinePart[];
  /** what the dates leave open, and a word of time with a slip in it: "Tuesday or Thursday?" */
  problems: PhraseProblem[];
}

/** A line has at most so many characters. */
export const LONGEST_LINE = 400;
/** From here on words name a place or a kind. */
const NAMED = 0.86;
/** Money with its sign or its word. */
const MONEY = /(?:(?:[A-Z]{2})?[$€£¥₹]\s?\d{1,5}(?:[.,]\d{1,2})?|\b\d{1,5}(?:[.,]\d{1,2})?\s?(?:[€£¥₹]|(?:dollars|euros?|pounds)\b))/i;
/** A number with two places stands for money where the line says another time, and it is none of a span: `10.30-12` is a time. */
const BARE_MONEY = /(?<![\d.:–—-]\s?)\b\d{1,5}[.,]\d{2}(?!\d|[.,:]\d|\s*(?:[ap]\.?m\b|h\b|hrs|o'clock|[–—-]|to\b|till\b|until\b))/i;
const FREE = /(?<![-\p{L}])(free(?:\s+(?:entry|admission|of charge))?|no charge|entry free|admission free)(?![-\p{L}])/iu;

interface Span {
  from: number;
  to: number;
}

const blank = (text: string, { from, to }: Span): string => text.slice(0, from) + ' '.repeat(to - from) + text.slice(to);

/** Everything that a line says. Longer lines are read as far as the bound. */
export function readLine(line: string, setting: LineSetting): ReadLine {
  const text = line.slice(0, LONGEST_LINE);
  const parts: LinePart[] = [];
  let rest = text;
  const take = (kind: PartKind, span: Span): void => {
    parts.push({ kind, ...span, text: text.slice(span.from, span.to).trim() });
    rest = blank(rest, span);
  };
  // What stands in quotation marks is the title, whatever it says.
  const quoted = /["“„«]([^"”“»]{2,160})["”“»]/.exec(rest);
  if (quoted) take('title', { from: quoted.index, to: quoted.index + quoted[0].length });
  const cost = readCost(rest, setting, take);
  const venue = readNamed(rest, setting.venues, ['at', 'in', '@']);
  if (venue) take('venue', venue);
  const organizer = readNamed(rest, setting.organizers, ['by', 'with', 'from']);
  if (organizer) take('organizer', organizer);
  const category = readKind(rest, setting.categories);
  if (category) take('category', category);
  const { reading, unread } = quoted ? readDates(rest, setting) : grown(rest, setting);
  const place = venue ? undefined : placeOf(rest, unread, Boolean(quoted));
  if (place) take('place', place);
  // A word of time with a slip in it belongs to the dates that it is asked about.
  const slips = reading.problems.filter(({ kind }) => kind === 'not-understood');
  for (const span of unread.flatMap((one) => without(one, slips)))
    if (!quoted && span !== place?.named) parts.push({ kind: 'title', ...span, text: rest.slice(span.from, span.to).trim() });
  for (const span of gaps(
    rest,
    unread.flatMap((one) => without(one, slips)),
  ))
    parts.push({ kind: 'when', ...span, text: rest.slice(span.from, span.to).trim() });
  parts.sort((a, b) => a.from - b.from);
  const words = (kind: PartKind): string =>
    parts
      .filter((p) => p.kind === kind)
      .map((p) => p.text)
      .join(' ');
  return {
    title: quoted?.[1]?.trim() ?? tidyTitle(words('title')),
    recurrence: reading.recurrence,
    when: words('when').replace(/^[,;\s]+|[,;\s]+$/g, ''),
    venueId: venue?.id ?? null,
    place: place?.words ?? '',
    organizerId: organizer?.id ?? null,
    categoryId: category?.id ?? null,
    cost,
    parts: parts.filter((p) => /[\p{L}\p{N}$€£]/u.test(p.text)),
    problems: reading.problems,
  };
}

/** What is left of a span before and behind others. */
function without(span: Span, others: readonly Span[]): Span[] {
  const inside = others.filter(({ from, to }) => from >= span.from && to <= span.to);
  if (!inside.length) return [span];
  const cuts = [span.from, ...inside.flatMap(({ from, to }) => [from, to]), span.to];
  return Array.from({ length: cuts.length / 2 }, (_, i) => ({ from: cuts[2 * i] ?? 0, to: cuts[2 * i + 1] ?? 0 })).filter(
    ({ from, to }) => to > from,
  );
}

interface Place extends Span {
  /** the unread words that it stands in */
  named: Span;
  words: string;
}

/** "… tue 7pm at the Old Barn": what "at" leads to behind the dates is a place, known or not. Before them it belongs to the title. */
function placeOf(text: string, unread: readonly Span[], titled: boolean): Place | undefined {
  for (const [i, named] of [...unread.entries()].reverse()) {
    if (i === 0 && !titled) return undefined;
    const before = text.slice(unread[i - 1]?.to ?? 0, named.from);
    const joint = JOINT_BEFORE.exec(before)?.[0] ?? '';
    const words = `${joint}${text.slice(named.from, named.to)}`;
    const dates = before.slice(0, before.length - joint.length);
    if (JOINT.test(words) && /[\p{L}\p{N}]/u.test(dates))
      return { from: named.from - joint.length, to: named.to, named, words: tidyTitle(words.replace(JOINT, '')) };
  }
  return undefined;
}

/** What leads to a place; the readers of dates take it for theirs where it stands behind a time. */
const JOINT = /^(at|@)\s+(?=\S)/i;
const JOINT_BEFORE = /(?<![\p{L}\p{N}])(at|@)\s+(the\s+)?$/iu;

interface Dates {
  reading: Reading;
  unread: Span[];
}

function readDates(text: string, setting: LineSetting): Dates {
  const reading = readAmongWords({ ...setting, phrase: text });
  return {
    reading,
    unread: reading.unread.filter(({ from, to }) => /[\p{L}\p{N}]/u.test(text.slice(from, to))).map(({ from, to }) => ({ from, to })),
  };
}

/**
 * The same, with the title grown over words that the dates do not need: "Evening" of "Rope Evening" is no time of day where an hour is
 * said. A word goes to the title when it stands beside it and the dates are the same without it.
 */
function grown(text: string, setting: LineSetting): Dates {
  const { reading, unread } = readDates(text, setting);
  const same = canonical(reading.recurrence);
  const spans: Span[] = unread.map((span) => ({ ...span }));
  const without = (span: Span): boolean => {
    let rest = text;
    for (const other of [...spans, span]) rest = blank(rest, other);
    return canonical(readAmongWords({ ...setting, phrase: rest }).recurrence) === same;
  };
  for (const span of spans)
    for (let tries = 0; tries < MOST_GROWN; tries++) {
      const after = /^\s+(?:a|an|the|of)?\s*[\p{L}'’-]+/u.exec(text.slice(span.to));
      const before = /[\p{L}'’-]+\s+$/u.exec(text.slice(0, span.from));
      if (after && !AFTER_TITLE.test(after[0]) && without({ from: span.to, to: span.to + after[0].length })) span.to += after[0].length;
      else if (before && !AFTER_TITLE.test(before[0]) && without({ from: span.from - before[0].length, to: span.from }))
        span.from -= before[0].length;
      else break;
    }
  return { reading, unread: joined(spans, text) };
}

/** So many words at most are won for a title; these never are. */
const MOST_GROWN = 5;
const AFTER_TITLE = /^\s*(at|on|from|by|until|to|every|each|[ap]\.?m\.?|noon|midnight|o'clock)(?![\p{L}\p{N}])/iu;

/** Small words between two pieces of a title, which the readers of dates took along: "Concert at the Proms". */
const BETWEEN = /^(\s+(at|in|on|by|from|for|of|to|with|and|the|an?))+\s+$/i;

function joined(spans: readonly Span[], text: string): Span[] {
  const out: Span[] = [];
  for (const span of [...spans].sort((a, b) => a.from - b.from)) {
    const last = out[out.length - 1];
    if (last && (span.from <= last.to || BETWEEN.test(text.slice(last.to, span.from)))) last.to = Math.max(last.to, span.to);
    else out.push({ ...span });
  }
  return out;
}

/** Leading and trailing joints that belonged to what was taken out. */
function tidyTitle(text: string): string {
  return text
    .replace(/\s+/g, ' ')
    .replace(/\s+([,.;:])/g, '$1')
    .replace(/^[\s,;:.–-]+|[\s,;:–-]+$/g, '')
    .replace(/\s+(at|in|on|by|from|with|for|@)$/i, '')
    .replace(/[\s,;:–-]+$/, '');
}

function readCost(text: string, setting: LineSetting, take: (kind: PartKind, span: Span) => void): Cost {
  const money = MONEY.exec(text) ?? bareMoney(text, setting);
  if (money) {
    take('cost', { from: money.index, to: money.index + money[0].length });
    return readMoney(money[0], setting.currency);
  }
  const free = FREE.exec(text);
  if (!free) return { kind: 'unsaid' };
  take('cost', { from: free.index, to: free.index + free[0].length });
  return { kind: 'free' };
}

function bareMoney(text: string, setting: LineSetting): RegExpExecArray | null {
  const found = BARE_MONEY.exec(text);
  if (!found) return null;
  const rest = blank(text, { from: found.index, to: found.index + found[0].length });
  const { recurrence } = readAmongWords({ ...setting, phrase: rest, day: setting.day ?? setting.now.day });
  return recurrence?.parts.some((s) => s.start.minute !== null) ? found : null;
}

interface NamedSpan extends Span {
  id: string;
}

const WORD = /[\p{L}\p{N}][\p{L}\p{N}'’.-]*/gu;

/** The place or person that some words in a row name best; a joint such as "at" before them goes along and helps. */
function readNamed(text: string, known: readonly Known[], joints: readonly string[]): NamedSpan | undefined {
  const words = [...text.matchAll(WORD)].map((m) => ({ from: m.index, to: m.index + m[0].length, text: m[0] }));
  let best: (NamedSpan & { score: number }) | undefined;
  for (const one of known) {
    const size = wordsOf(one.name).length;
    for (let i = 0; i < words.length; i++)
      for (const count of [size - 1, size, size + 1]) {
        const slice = count < 1 ? [] : words.slice(i, i + count);
        const found = slice.length === count ? namedBy(text, slice, one, joints) : undefined;
        if (found && (!best || found.score > best.score)) best = found;
      }
  }
  return best && { id: best.id, from: best.from, to: best.to };
}

function namedBy(
  text: string,
  slice: readonly (Span & { text: string })[],
  one: Known,
  joints: readonly string[],
): (NamedSpan & { score: number }) | undefined {
  const [first, last] = [slice[0], slice[slice.length - 1]];
  if (!first || !last || /[,;]/.test(text.slice(first.from, last.from))) return undefined;
  const joint = /(\S+)\s+$/.exec(text.slice(0, first.from));
  const isJoined = joint !== null && joints.includes((joint[1] ?? '').toLowerCase());
  const likeness = nameLikeness(slice.map((w) => w.text).join(' '), one.name);
  // A single common word, "hall", names nothing by itself.
  if (likeness < NAMED || (!isJoined && tellingWords(one.name).length < 2 && likeness < 1)) return undefined;
  return {
    id: one.id,
    from: isJoined ? joint.index : first.from,
    to: last.to,
    score: likeness + (isJoined ? 0.05 : 0) + slice.length * 0.01,
  };
}

/** A kind stands alone between commas, or after "#": "…, music". The last one counts. */
function readKind(text: string, known: readonly Known[]): NamedSpan | undefined {
  const pieces = [...text.matchAll(/(?:^|[,;#])\s*([^,;#]+)/g)].reverse();
  for (const piece of pieces) {
    const said = piece[1]?.trim() ?? '';
    if (!said || (piece.index === 0 && !piece[0].startsWith('#'))) continue;
    const match = known
      .map((one) => ({ one, likeness: kindLikeness(said, one.name) }))
      .sort((a, b) => b.likeness - a.likeness || a.one.name.length - b.one.name.length)[0];
    if (!match || match.likeness < NAMED) continue;
    const from = piece.index + piece[0].indexOf(said);
    return { id: match.one.id, from: text[from - 1] === '#' ? from - 1 : from, to: from + said.length };
  }
  return undefined;
}

/** "music" means "Music & dance": one whole word of the name will do where nothing else was said. */
function kindLikeness(said: string, name: string): number {
  const words = tellingWords(said);
  if (words.length === 1 && tellingWords(name).some((w) => w === words[0])) return 0.9;
  return nameLikeness(said, name);
}

/** What of a text is not in some spans, where it is more than signs. */
function gaps(text: string, spans: readonly Span[]): Span[] {
  const found: Span[] = [];
  let at = 0;
  for (const { from, to } of [...spans, { from: text.length, to: text.length }].sort((a, b) => a.from - b.from)) {
    const piece = text.slice(at, from);
    if (/[\p{L}\p{N}]/u.test(piece)) {
      const lead = /^[\s,;]*/.exec(piece)?.[0].length ?? 0;
      found.push({ from: at + lead, to: at + piece.replace(/[\s,;]+$/, '').length });
    }
    at = Math.max(at, to);
  }
  return found;
}

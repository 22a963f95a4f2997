/** Measurements of the finder alone: 200,000 dates of 10,000 listings, and ten times as many. */
import { isoDateTime } from '@/core/day/plain-date-time';
import { type Condition, FACT_NAMES, type FactCondition } from '@/core/filters/condition';
import { Finder } from '@/core/finder/finder';
import type { FoundDate, FoundListing } from '@/core/finder/found';
import { between, pick, random, some } from '../support/generate';

const FIRST_DAY = 20_000;
const DAYS = 1_095;
const EACH = 20;
const now = (): number => Number(process.hrtime.bigint()) / 1e6;
const quantile = (list: number[], q: number): number =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(list.length * q))] ?? 0;

const SYLLABLES = [
  'ha',
  'bour',
  'lan',
  'tern',
  'kit',
  'ti',
  'wick',
  'gan',
  'net',
  'ro',
  'pe',
  'sa',
  'lt',
  'cho',
  'ir',
  'mar',
  'sh',
  'el',
  'quay',
];
const KINDS = Array.from({ length: 24 }, (_, i) => `kind-${i}`);
const VENUES = Array.from({ length: 300 }, (_, i) => `venue-${i}`);

function listingOf(r: () => number, id: string, vocabulary: readonly string[]): { listing: FoundListing; dates: FoundDate[] } {
  const words = Array.from({ length: 60 }, () => vocabulary[Math.floor(r() ** 2 * vocabulary.length)] as string);
  const listing: FoundListing = {
    listingId: id,
    listing: id,
    title: words.slice(0, 3).join(' '),
    shortTitle: '',
    summary: words.slice(3, 25).join(' '),
    headline: r() < 0.05,
    onTopUntil: null,
    free: r() < 0.5,
    cost: { kind: 'free' },
    categoryId: pick(r, KINDS),
    venueIds: [pick(r, VENUES)],
    zone: '',
    attendance: r() < 0.9 ? 'in-person' : 'online',
    pictureId: null,
    translations: null,
    eventStatus: 'going-ahead',
    tagIds: [],
    organizerIds: [],
    search: words.join(' '),
  };
  const start = FIRST_DAY + between(r, 0, DAYS - 7 * EACH);
  const minute = between(r, 8, 21) * 60;
  const dates = Array.from({ length: EACH }, (_, i): FoundDate => {
    const day = start + i * 7;
    const times = { startDay: day, startMinute: minute, endDay: day, endMinute: minute + 90, lastDay: day };
    return { original: isoDateTime({ day, minute }), timed: false, ...times, eventStatus: null, note: '', venueId: null, moved: false };
  });
  return { listing, dates };
}

interface Made {
  finder: Finder;
  /** milliseconds of work, and of its longest step */
  ms: number;
  longest: number;
  vocabulary: string[];
}

function make(listings: number): Made {
  const r = random(20_270_317);
  const vocabulary = Array.from({ length: 20_000 }, () => some(r, SYLLABLES, 4).join(''));
  const builder = Finder.builder();
  let ms = 0;
  let longest = 0;
  const step = <T>(work: () => T): T => {
    const began = now();
    const result = work();
    ms += now() - began;
    longest = Math.max(longest, now() - began);
    return result;
  };
  for (let i = 0; i < listings; i++) {
    const { listing, dates } = listingOf(r, `listing-${i}`, vocabulary);
    step(() => builder.add(listing, dates));
  }
  const steps = builder.finish();
  for (;;) {
    const next = step(() => steps.next());
    if (next.done) return { finder: next.value, ms, longest, vocabulary };
  }
}

/** What one reader's choice asks: a page of forty dates and the count of every option. */
function ask(finder: Finder, conditions: readonly FactCondition[], words: readonly Condition[], from: number): void {
  finder.find({ span: { from }, conditions: [...words, ...conditions] }, 40);
  const counted = finder.tally({ from, to: FIRST_DAY + DAYS }, { groups: { kind: conditions }, words });
  for (const fact of FACT_NAMES) counted.by(fact, 'kind');
}

/** The least of three: what disturbs a computation on a shared machine only ever makes it slower. */
function least(run: () => void): number {
  return Math.min(
    ...[0, 1, 2].map(() => {
      const began = now();
      run();
      return now() - began;
    }),
  );
}

function choices(finder: Finder, times: number, words: (r: () => number) => Condition[]): number[] {
  const r = random(7);
  return Array.from({ length: times + 50 }, () => {
    const conditions: FactCondition[] = [
      { asks: 'category', ids: new Set(some(r, KINDS, 3)) },
      ...(r() < 0.5 ? [{ asks: 'venue' as const, ids: new Set(some(r, VENUES, 40)) }] : []),
      ...(r() < 0.3 ? [{ asks: 'free' as const }] : []),
    ];
    const typed = words(r);
    const from = FIRST_DAY + between(r, 0, 300);
    // New values each time: nothing is known of them yet.
    return least(() =>
      ask(
        finder,
        conditions.map((one) => ({ ...one })),
        typed.map((one) => ({ ...one })),
        from,
      ),
    );
  }).slice(50);
}

/** Measures it. Times in ms. */
export async function measureFinder() {
  const memory = (): number => {
    globalThis.gc?.();
    const { heapUsed, arrayBuffers } = process.memoryUsage();
    return (heapUsed + arrayBuffers) / 1024 / 1024;
  };
  const before = memory();
  const { finder, ms, longest, vocabulary } = make(10_000);
  const megabytes = memory() - before;
  const word = (r: () => number): Condition => ({ asks: 'word', word: (vocabulary[between(r, 0, 5_000)] as string).slice(0, 6) });
  const choice = choices(finder, 300, () => []);
  const typed = choices(finder, 300, (r) => [word(r), word(r)]);
  const slips = choices(finder, 300, (r) => {
    const right = vocabulary[between(r, 0, 5_000)] as string;
    const wrong = `${right.slice(0, 2)}z${right.slice(3)}`;
    return finder.words.near(wrong, 4).map((near) => ({ asks: 'word', word: near }));
  });
  const r = random(11);
  const replace = Array.from({ length: 200 }, (_, i) => {
    const listingId = `listing-${i * 7}`;
    // Another one each time: nothing stays where it was.
    const others = [0, 1, 2].map(() => listingOf(r, listingId, vocabulary));
    return least(() => finder.replace([{ listingId, is: others.pop() }]));
  });
  const many = make(100_000).finder;
  const linear =
    quantile(
      choices(many, 100, () => []),
      0.5,
    ) / quantile(choice, 0.5);
  return {
    seconds: ms / 1000,
    longestStep: longest,
    megabytes,
    choice: quantile(choice, 0.99),
    choiceP50: quantile(choice, 0.5),
    words: quantile(typed, 0.99),
    slips: quantile(slips, 0.99),
    replace: quantile(replace, 0.99),
    linear,
  };
}

/**
 * A corpus for lookalikes: events of the isles, for each a second sighting that is the same event as somebody else would send it, or
 * one that nearly is. At least half of the pairs are near misses. From a seed, so that it can be drawn again.
 */
import { dayOf } from '@/core/day/day';
import type { PlainDateTime } from '@/core/day/plain-date-time';
import type { Sighting } from '@/core/match/lookalike';
import { between, pick, random } from './generate';

export interface Pair {
  a: Sighting;
  b: Sighting;
  same: boolean;
  /** how the second was made */
  how: string;
}

const FIRST = [
  'Harbour',
  'Lantern',
  'Shore',
  'Kelp',
  'Causeway',
  'Gannet Bay',
  'Skerry',
  'Island',
  'Pilots’',
  'Salt Garden',
  'Net Loft',
  'Quay',
  'Spring',
  'Midsummer',
  'Winter',
  'Low-tide',
];
const SECOND = [
  'Choir',
  'Seed',
  'Rope',
  'Boat',
  'Bird',
  'Bread',
  'Star',
  'Lamp',
  'Ceilidh',
  'Book',
  'Knitting',
  'Skiff',
  'Story',
  'Fiddle',
  'Mending',
  'Chart',
  'Film',
  'Swimming',
  'Pottery',
  'Herring',
];
const THIRD = [
  'Evening',
  'Swap',
  'Workshop',
  'Walk',
  'Fair',
  'Supper',
  'Regatta',
  'Concert',
  'Morning',
  'Talk',
  'Class',
  'Club',
  'Market',
  'Count',
  'Auction',
  'Gathering',
];
const TAILS = ['for all', 'with tea', 'at the quay', 'by lamplight', 'for the lifeboat', 'with the skiff club', 'in the yard'];
const VENUES = [
  'St Bride’s Hall',
  'Net Loft',
  'Pilots’ House',
  'The Glasshouse',
  'Lantern Quay Workshop',
  'Skerry Schoolroom',
  'Council Room',
  'Port Amble Slip',
].map((name, i) => ({ id: `v${i}`, name, parentId: null }));
const ORGANIZERS = ['o0', 'o1', 'o2', 'o3', 'o4', 'o5'];

type Random = () => number;

function event(r: Random): Sighting {
  const title = [pick(r, FIRST), pick(r, SECOND), pick(r, THIRD), ...(r() < 0.25 ? [pick(r, TAILS)] : [])].join(' ');
  const start: PlainDateTime = { day: between(r, dayOf(2027, 3, 20), dayOf(2027, 9, 1)), minute: between(r, 16, 40) * 30 };
  const weekly = r() < 0.35;
  return {
    title,
    dates: weekly ? Array.from({ length: 12 }, (_, i) => ({ day: start.day + 7 * i, minute: start.minute })) : [start],
    online: false,
    venues: r() < 0.92 ? [pick(r, VENUES)] : [],
    organizers: r() < 0.85 ? [pick(r, ORGANIZERS)] : [],
  };
}

/** One slip in one of the longer words. */
function slip(r: Random, title: string): string {
  const words = title.split(' ');
  const long = words.flatMap((w, i) => (w.length >= 5 && /^[\p{L}]+$/u.test(w) ? [i] : []));
  if (!long.length) return title;
  const i = pick(r, long);
  const word = words[i] as string;
  const at = between(r, 1, word.length - 2);
  const made = [
    word.slice(0, at) + word.slice(at + 1),
    word.slice(0, at) + word[at] + word.slice(at),
    word.slice(0, at) + (word[at + 1] ?? '') + word[at] + word.slice(at + 2),
  ];
  words[i] = pick(r, made);
  return words.join(' ');
}

const TITLES: [string, (r: Random, title: string) => string][] = [
  ['the same title', (_, t) => t],
  ['a slip', (r, t) => slip(r, t)],
  ['capitals', (_, t) => t.toUpperCase()],
  ['an article', (_, t) => `The ${t}`],
  [
    'another order',
    (_, t) => {
      const [first, ...rest] = t.split(' ');
      return `${rest.join(' ')}, ${first}`;
    },
  ],
  ['more words', (r, t) => `${t} – ${pick(r, ['all welcome', 'bring a friend', 'doors open early', 'everyone welcome'])}`],
  ['the year', (_, t) => `${t} 2027`],
  ['the place in the title', (_, t) => `${t} at the hall`],
  ['plural', (_, t) => t.replace(/(Walk|Talk|Workshop|Concert|Class|Market)\b/, '$1s')],
  ['without its tail', (_, t) => t.split(' ').slice(0, 3).join(' ')],
];
const TIMES: [string, (r: Random, d: readonly PlainDateTime[]) => PlainDateTime[]][] = [
  ['the same time', (_, d) => [...d]],
  ['the same time', (_, d) => [...d]],
  ['a quarter of an hour off', (_, d) => d.map((w) => ({ ...w, minute: (w.minute ?? 0) + 15 }))],
  ['half an hour off', (_, d) => d.map((w) => ({ ...w, minute: (w.minute ?? 0) - 30 }))],
  ['all day', (_, d) => d.map((w) => ({ ...w, minute: null }))],
  ['one of its dates', (r, d) => [pick(r, d)]],
];

function double(r: Random, a: Sighting): Pair {
  const [t, title] = pick(r, TITLES);
  const [w, dates] = pick(r, TIMES);
  const place = r();
  const venues = place < 0.65 ? a.venues : place < 0.85 ? [] : a.venues.map((v) => ({ ...v, id: `${v.id}x`, name: `The ${v.name}` }));
  const organizers = r() < 0.6 ? a.organizers : [];
  return { a, b: { ...a, title: title(r, a.title), dates: dates(r, a.dates), venues, organizers }, same: true, how: `${t}, ${w}` };
}

const other = <T>(r: Random, from: readonly T[], not: T): T =>
  pick(
    r,
    from.filter((x) => x !== not),
  );
const swapWord = (r: Random, title: string): string => {
  const word = SECOND.find((w) => title.split(' ').includes(w));
  return word ? title.replace(word, other(r, SECOND, word)) : `Other ${title}`;
};

const NEAR: [string, (r: Random, a: Sighting) => Sighting][] = [
  ['the same on another day', (r, a) => ({ ...a, dates: a.dates.map((d) => ({ ...d, day: d.day + between(r, 2, 6) })) })],
  [
    'the next of a series',
    (r, a) => ({
      ...a,
      title: `${a.title} 2`,
      dates: [{ day: (a.dates[0]?.day ?? 0) + 7 * between(r, 13, 30), minute: a.dates[0]?.minute ?? 0 }],
    }),
  ],
  ['another subject, same place and time', (r, a) => ({ ...a, title: swapWord(r, a.title) })],
  [
    'another subject, same day',
    (r, a) => ({ ...a, title: swapWord(r, a.title), dates: a.dates.map((d) => ({ ...d, minute: (d.minute ?? 0) + 60 })) }),
  ],
  ['juniors and seniors', (_, a) => ({ ...a, title: `${a.title}: seniors` })],
  ['part one and part two', (_, a) => ({ ...a, title: `${a.title}, part 2` })],
  [
    'the same title in another hall at another hour',
    (r, a) => ({
      ...a,
      venues: [other(r, VENUES, a.venues[0] ?? VENUES[0])] as typeof VENUES,
      organizers: ['z'],
      dates: a.dates.map((d) => ({ ...d, minute: (d.minute ?? 0) + (r() < 0.5 ? 180 : -150) })),
    }),
  ],
  [
    'the same title at the same hour in another hall',
    (r, a) => ({ ...a, venues: [other(r, VENUES, a.venues[0] ?? VENUES[0])] as typeof VENUES, organizers: ['z'] }),
  ],
  [
    'matinee and evening',
    (_, a) => ({ ...a, title: `${a.title} evening`, dates: a.dates.map((d) => ({ ...d, minute: (d.minute ?? 0) + 300 })) }),
  ],
  ['something else entirely there and then', (r, a) => ({ ...event(r), dates: a.dates, venues: a.venues, organizers: a.organizers })],
];

function nearMiss(r: Random, base: Sighting): Pair {
  const [how, make] = pick(r, NEAR);
  const a = how.startsWith('juniors')
    ? { ...base, title: `${base.title}: juniors` }
    : how.startsWith('part')
      ? { ...base, title: `${base.title}, part 1` }
      : how.startsWith('matinee')
        ? { ...base, title: `${base.title} matinee` }
        : base;
  return { a, b: make(r, base), same: false, how };
}

/** Pairs from a seed: two near misses for each double, nearly. */
export function doubles(seed: number, count: number): Pair[] {
  const r = random(seed);
  return Array.from({ length: count }, () => {
    const a = event(r);
    return r() < 0.42 ? double(r, a) : nearMiss(r, a);
  }).filter((pair) => pair.same || pair.a.title !== pair.b.title || pair.how.includes('same'));
}

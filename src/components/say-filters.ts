/** What a reader chose, in words: "Music & dance, free, this weekend, within 5 km of the harbour". */
import type { EpochDay } from '@/core/day/day';
import { type FilterGroup, type FilterPart, filterParts, type Filters, type NamedDays, ONLINE } from '@/core/filters/filters';
import type { PartOfDay } from '@/core/filters/part-of-day';
import { sayCost } from '@/core/listing/content';
import { sayDay, type Style } from '@/core/phrase/format';
import type { Feature } from '@/core/venue/features';
import type { ReferenceData } from '@/server/reference/read';
import type { ReadersWords } from '@/words/readers';

/** What choices are said with. */
export interface SayContext {
  reference: ReferenceData;
  words: ReadersWords;
  style: Style;
  currency: string;
  /** the name of the place that was found for the one that was typed */
  near?: string | undefined;
}

type FilterWords = ReadersWords['filters'];

const PART_WORDS = { morning: 'saidMorning', afternoon: 'saidAfternoon', evening: 'saidEvening' } as const satisfies Record<
  PartOfDay,
  keyof FilterWords
>;
const DAY_WORDS = {
  today: 'saidToday',
  tomorrow: 'saidTomorrow',
  weekend: 'saidWeekend',
  'next-week': 'saidNextWeek',
} as const satisfies Record<NamedDays, keyof FilterWords>;

/** The name of a group of filters, over its boxes. */
export function groupWords(group: FilterGroup, { filters: w }: ReadersWords): string {
  const names: Record<FilterGroup, () => string> = {
    days: w.days,
    kind: w.kinds,
    place: w.where,
    near: w.near,
    part: w.parts,
    cost: w.cost,
    access: w.access,
    how: w.how,
    ahead: w.status,
    area: w.areas,
    venue: w.venues,
    by: w.organizers,
    tag: w.tags,
  };
  return names[group]();
}

function sayDays({ days }: Filters, w: FilterWords, style: Style): string {
  if (!days) return '';
  if (days.named) return w[DAY_WORDS[days.named]]();
  const say = (day: EpochDay): string => sayDay(day, style, { month: 'short', year: true });
  const { from, to } = days;
  if (from !== undefined && from === to) return w.saidDay({ day: say(from) });
  if (from !== undefined && to !== undefined) return w.saidFromTo({ from: say(from), to: say(to) });
  return from !== undefined ? w.saidFrom({ day: say(from) }) : w.saidUntil({ day: say(to as EpochDay) });
}

/** One choice, in words. */
export function sayPart({ name, value }: FilterPart, filters: Filters, { reference, words, style, currency, near }: SayContext): string {
  const { filters: w } = words;
  const named = (all: readonly { slug: string; name: string }[]): string => all.find(({ slug }) => slug === value)?.name ?? value;
  switch (name) {
    case 'kind':
      return named(reference.categories);
    case 'tag':
      return named(reference.tags);
    case 'venue':
      return named([...reference.venue.values()]);
    case 'by':
      return w.saidBy({ name: named([...reference.organizer.values()]) });
    case 'place':
      return value === ONLINE ? w.saidOnline() : value;
    case 'area':
      return value;
    case 'words':
      return `“${value}”`;
    case 'free':
      return w.saidFree();
    case 'upto':
      return w.saidUpTo({ amount: sayCost({ kind: 'amount', amount: value, currency }, style.language) });
    case 'days':
      return sayDays(filters, w, style);
    case 'part':
      return w[PART_WORDS[value as PartOfDay]]();
    case 'near':
      return w.saidNear({ km: String(filters.near?.km), place: near || value });
    case 'access':
      return words.features[value as Feature]().toLocaleLowerCase(style.language);
    case 'how':
      return value === 'online' ? w.saidOnline() : w.saidInPerson();
    case 'ahead':
      return w.saidAhead();
  }
}

/** Each choice, in words; empty when nothing is chosen. */
export const sayFilters = (filters: Filters, context: SayContext): string[] =>
  filterParts(filters).map((part) => sayPart(part, filters, context));

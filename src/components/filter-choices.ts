/** The boxes of readers' filters: what can be chosen in each group, what is, and how many dates each would leave. */
import { type FilterGroup, type Filters, NAMED_DAYS, type NamedDays, ONLINE, WAYS } from '@/core/filters/filters';
import { PARTS_OF_DAY } from '@/core/filters/part-of-day';
import { FEATURES } from '@/core/venue/features';
import type { FacetName, Facets } from '@/server/public/facets';
import type { ReferenceData } from '@/server/reference/read';
import type { ReadersWords } from '@/words/readers';
import { html, type Piece } from './html';
import { iconHtml, markHtml } from './marks';

/** One box. */
export interface Choice {
  name: FacetName;
  value: string;
  on: boolean;
  label: Piece;
  n: number;
}

/** So many of the most usual values of a long list have boxes; its page has all of them. */
const MOST_BOXES = 12;

const DAY_NAMES = { today: 'today', tomorrow: 'tomorrow', weekend: 'weekend', 'next-week': 'nextWeek' } as const satisfies Record<
  NamedDays,
  keyof ReadersWords['filters']
>;

/** What the boxes are made of. */
export interface ChoicesInput {
  filters: Filters;
  facets: Facets;
  reference: ReferenceData;
  words: ReadersWords;
}

type Named = readonly { slug: string; name: string }[];

/** A few of many: what is chosen, and what most dates have. */
function few(name: 'venue' | 'by' | 'tag', all: Named, chosen: readonly string[], facets: Facets): Choice[] {
  const counts = facets.of(name);
  const boxes = all.map(
    ({ slug, name: label }): Choice => ({ name, value: slug, on: chosen.includes(slug), label, n: counts.get(slug) ?? 0 }),
  );
  const most = boxes.filter(({ on, n }) => !on && n > 0).sort((a, b) => b.n - a.n);
  const known = new Set(all.map(({ slug }) => slug));
  const unknown = chosen.filter((slug) => !known.has(slug)).map((slug): Choice => ({ name, value: slug, on: true, label: slug, n: 0 }));
  return [...boxes.filter(({ on }) => on), ...unknown, ...most.slice(0, MOST_BOXES)];
}

/** The boxes of each group; a group without a choice is empty. Days and nearness have fields of their own. */
export function choicesOf(group: FilterGroup, input: ChoicesInput): Choice[] {
  const { filters, facets, reference, words } = input;
  const { filters: w } = words;
  const boxes = <T extends string>(
    name: FacetName,
    values: readonly T[],
    chosen: readonly string[],
    label: (value: T) => Piece,
  ): Choice[] => {
    const counts = facets.of(name);
    return values.map((value) => ({ name, value, on: chosen.includes(value), label: label(value), n: counts.get(value) ?? 0 }));
  };
  switch (group) {
    case 'days':
      return boxes('on', NAMED_DAYS, [filters.days?.named ?? ''], (name) => w[DAY_NAMES[name]]());
    case 'kind': {
      const category = new Map(reference.categories.map((one) => [one.slug, one]));
      return boxes('kind', [...category.keys()], filters.kinds, (slug) => {
        const one = category.get(slug);
        return one ? html`${markHtml(one)}<span class="pl-1">${iconHtml(one.icon)}${one.name}</span>` : slug;
      });
    }
    case 'place':
      // "Online" among places is how addresses of earlier times say it.
      return boxes('place', filters.places.includes(ONLINE) ? [...reference.towns, ONLINE] : reference.towns, filters.places, (town) =>
        town === ONLINE ? w.online() : town,
      );
    case 'area': {
      const areas = [...new Set(reference.venues.map(({ island }) => island).filter(Boolean))].sort();
      return boxes('area', areas, filters.areas, (area) => area);
    }
    case 'part':
      return boxes('part', PARTS_OF_DAY, filters.parts, (part) => w[part]());
    case 'cost':
      return boxes('free', ['1'], filters.free ? ['1'] : [], () => w.free());
    case 'access': {
      const has = facets.of('access');
      const shown = FEATURES.filter((feature) => has.has(feature) || filters.access.includes(feature));
      return boxes('access', shown, filters.access, (feature) => words.features[feature]());
    }
    case 'how':
      return boxes('how', WAYS, filters.ways, (way) => (way === 'online' ? w.online() : w.inPerson()));
    case 'ahead':
      return boxes('ahead', ['1'], filters.goingAhead ? ['1'] : [], () => w.ahead());
    case 'venue':
      return few('venue', reference.venues, filters.venues, facets);
    case 'by':
      return few('by', reference.organizers, filters.organizers, facets);
    case 'tag':
      return few('tag', reference.tags, filters.tags, facets);
    case 'near':
      return [];
  }
}

/** So many names of places are offered while somebody types; any other may be typed too. */
const MOST_NAMES = 120;
/** Made once for each state of the content: every page has them. */
const names = new WeakMap<ReferenceData, string>();

/** The names of towns and venues, as options that a field offers. */
export function nearPlaces(reference: ReferenceData): string {
  const known = names.get(reference);
  if (known !== undefined) return known;
  const all = [...reference.towns, ...new Set(reference.venues.map(({ name }) => name))].slice(0, MOST_NAMES);
  const made = html`${all.map((name) => html`<option value="${name}">`)}`.text;
  names.set(reference, made);
  return made;
}

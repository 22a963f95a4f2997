/** Marks on a chart that would cover each other, put into one: a few by their pixels, thousands by an index that is made once. */
import Supercluster from 'supercluster';
import type { Bounds } from './geo';

/** A mark on the chart, by its position in pixels and its count. */
export interface Mark {
  id: string;
  x: number;
  y: number;
  /** what its ring counts; also how strongly it holds its place in a group */
  count: number;
}

/** Marks that would cover each other, as one. */
export interface MarkGroup {
  /** where its ring stands: the middle of its marks by their counts */
  x: number;
  y: number;
  /** ids of its marks, the largest first */
  ids: string[];
  count: number;
}

const middle = (marks: readonly Mark[]): { x: number; y: number } => {
  const weight = (mark: Mark): number => mark.count + 1;
  const all = marks.reduce((sum, mark) => sum + weight(mark), 0);
  return {
    x: marks.reduce((sum, mark) => sum + mark.x * weight(mark), 0) / all,
    y: marks.reduce((sum, mark) => sum + mark.y * weight(mark), 0) / all,
  };
};

interface Growing {
  x: number;
  y: number;
  marks: Mark[];
}

/**
 * Groups marks until no two rings are closer than `apart`. The closest two are joined first, so that what lies alone stays alone.
 * Cost: marks² for each join, with a few hundred marks at most; for more there is `MarkIndex`.
 */
export function groupMarks(marks: readonly Mark[], apart: number): MarkGroup[] {
  const groups: Growing[] = marks.map((mark) => ({ x: mark.x, y: mark.y, marks: [mark] }));
  for (let pair = closest(groups, apart); pair; pair = closest(groups, apart)) {
    const [a, b] = pair;
    const joined = [...a.marks, ...b.marks];
    groups.splice(groups.indexOf(b), 1);
    groups[groups.indexOf(a)] = { ...middle(joined), marks: joined };
  }
  return groups.map(({ x, y, marks: own }) => ({
    x,
    y,
    ids: [...own].sort((a, b) => b.count - a.count || (a.id < b.id ? -1 : 1)).map((mark) => mark.id),
    count: own.reduce((sum, mark) => sum + mark.count, 0),
  }));
}

function closest(groups: readonly Growing[], apart: number): [Growing, Growing] | undefined {
  let best: [Growing, Growing] | undefined;
  // Squares compare as what they are squares of.
  let least = apart * apart;
  for (let i = 0; i < groups.length; i++) {
    const a = groups[i] as Growing;
    for (let k = i + 1; k < groups.length; k++) {
      const b = groups[k] as Growing;
      const distance = (a.x - b.x) ** 2 + (a.y - b.y) ** 2;
      if (distance < least) {
        least = distance;
        best = [a, b];
      }
    }
  }
  return best;
}

/** A place on the chart. */
export interface ChartMark {
  id: string;
  lat: number;
  lng: number;
  count: number;
}

/** Where a place is in the drawing, in pixels. */
type Project = (at: { lat: number; lng: number }) => { x: number; y: number };

/** So many are grouped by their pixels alone, which joins the closest two first. */
const FEW = 150;
/** A tile of the chart, in pixels: at zoom 0 the whole earth. */
const TILE = 512;
const MAX_ZOOM = 16;

/** How close a drawing of these bounds is, as zooms are counted. @param width in pixels */
export const zoomOf = ({ west, east }: Bounds, width: number): number => Math.log2((360 / Math.max(east - west, 1e-6)) * (width / TILE));

/** All places of a chart, grouped anew for each part of it that is shown: thousands cost less than a millisecond or two. */
export class MarkIndex {
  readonly #index: Supercluster<ChartMark, { count: number }> | undefined;

  constructor(
    private readonly places: readonly ChartMark[],
    private readonly apart: number,
  ) {
    if (places.length <= FEW) return;
    this.#index = new Supercluster<ChartMark, { count: number }>({
      radius: apart,
      extent: TILE,
      maxZoom: MAX_ZOOM,
      map: ({ count }) => ({ count }),
      reduce: (all, one) => {
        all.count += one.count;
      },
    });
    this.#index.load(
      places.map((place) => ({
        type: 'Feature',
        geometry: { type: 'Point', coordinates: [place.lng, place.lat] },
        properties: place,
      })),
    );
  }

  /** The rings of a part of the chart; no two are closer than `apart`, and each place of that part is in one. */
  at(bounds: Bounds, zoom: number, project: Project): MarkGroup[] {
    const { west, south, east, north } = bounds;
    const within = ({ lat, lng }: ChartMark): boolean => lng >= west && lng <= east && lat >= south && lat <= north;
    if (!this.#index)
      return groupMarks(
        this.places.filter(within).map((place) => markOf(place, project)),
        this.apart,
      );
    const index = this.#index;
    const members = new Map<string, string[]>();
    const marks = index.getClusters([west, south, east, north], Math.max(0, Math.min(MAX_ZOOM, Math.floor(zoom)))).map((found) => {
      const [lng = 0, lat = 0] = found.geometry.coordinates;
      if (!('cluster_id' in found.properties)) return markOf(found.properties, project);
      const { cluster_id, count } = found.properties;
      const own = index.getLeaves(cluster_id as number, Number.POSITIVE_INFINITY).map(({ properties }) => properties);
      own.sort((a, b) => b.count - a.count || (a.id < b.id ? -1 : 1));
      const id = `group ${cluster_id}`;
      members.set(
        id,
        own.map((place) => place.id),
      );
      return { ...project({ lat, lng }), id, count };
    });
    return groupMarks(marks, this.apart).map((group) => ({ ...group, ids: group.ids.flatMap((id) => members.get(id) ?? [id]) }));
  }
}

const markOf = ({ id, lat, lng, count }: ChartMark, project: Project): Mark => ({ id, count, ...project({ lat, lng }) });

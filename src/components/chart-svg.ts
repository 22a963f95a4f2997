/** The site's chart as an engraving: SVG drawn on the server, for readers without WebGL and for small maps. */
import { html, type Html, type Piece } from './html';
import { roomForNames } from '@/core/geo/name-room';
import { groundShapes, isGround, type StreetPath, streetPaths } from '@/core/geo/street-paths';
import { type Bounds, type Chart, type ChartFeature, type ChartFeatureKind, distanceKm, type Point, projection } from '@/core/geo/geo';

export interface ChartDrawing {
  chart: Chart | undefined;
  bounds: Bounds;
  width: number;
  height: number;
  /** what to draw on top, in the chart's own coordinates */
  marks: (project: (point: Point) => [number, number]) => Piece;
  names: boolean;
  /** the streets of these bounds at this size, where the site has them */
  streets?: readonly StreetPath[] | undefined;
}

type Position = [number, number];

export function chartSvg({ chart, bounds, width, height, marks, names, streets = [] }: ChartDrawing): Html {
  const project = projection(bounds, width, height);
  const at = ([lng, lat]: Position): string =>
    project({ lat, lng })
      .map((n) => n.toFixed(1))
      .join(' ');
  const line = (points: Position[]): string => points.map((p, i) => `${i ? 'L' : 'M'}${at(p)}`).join('');
  const features = chart?.features ?? [];
  const surface = (kind: ChartFeatureKind): string =>
    features
      .flatMap((f) =>
        f.geometry.type === 'Polygon' && f.properties.kind === kind ? f.geometry.coordinates.map((ring) => `${line(ring)}Z`) : [],
      )
      .join('');
  const [land, lakes] = [surface('land'), surface('lake')];
  // Where land is cut off at the chart's edges, its outline is more than the coast.
  const shore = features.flatMap(({ properties: { kind }, geometry }) =>
    kind === 'coast' && geometry.type === 'LineString' ? [line(geometry.coordinates)] : [],
  );
  const coast = shore.join('') || land;
  const parts = [graticule(bounds, project, width, height)];
  // Two water-lines follow each coast: wide strokes, each covered by a narrower one of sea.
  if (coast) {
    for (const [w, colour] of [
      [19, ''],
      [17, 'sea'],
      [11, ''],
      [9, 'sea'],
    ] as const) {
      parts.push(
        html`<path d="${coast}" fill="none" stroke-linejoin="round" stroke-linecap="round" stroke-width="${w}" stroke="${colour ? 'var(--ground)' : 'color-mix(in srgb, var(--tide) 30%, var(--ground))'}"/>`,
      );
    }
  }
  // Borders lie on the land, routes beside it.
  const lines = (on: boolean): void => {
    for (const { properties, geometry } of features.filter((one) => !isGround(one))) {
      if (geometry.type !== 'LineString' || properties.kind === 'coast' || (properties.kind === 'border') !== on) continue;
      parts.push(html`<path class="${properties.kind}" d="${line(geometry.coordinates)}"/>`);
    }
  };
  lines(false);
  if (land) parts.push(html`<path class="${shore.length ? 'cut' : 'land'}" fill-rule="evenodd" d="${land}"/>`);
  if (lakes) parts.push(html`<path class="lake" fill-rule="evenodd" d="${lakes}"/>`);
  if (shore.length) parts.push(html`<path class="shore" d="${shore.join('')}"/>`);
  lines(true);
  // What the site drew itself lies over the streets.
  const ground = streetPaths(groundShapes(features), project, width, height);
  for (const { d, fill, stroke, width: wide, dash } of [...streets, ...ground])
    parts.push(
      html`<path d="${d}" fill="${fill}" fill-rule="evenodd" stroke="${stroke}" stroke-width="${wide}" stroke-dasharray="${dash || 'none'}" stroke-linecap="${dash ? 'butt' : 'round'}" stroke-linejoin="round"/>`,
    );
  if (names) parts.push(...nameTexts(features, project, roomForNames(width, height)));
  if (names) parts.push(scaleBar(bounds, project, height));
  return html`<svg class="base" viewBox="0 0 ${width} ${height}" preserveAspectRatio="xMidYMid slice" role="img" aria-label="Chart">${parts}${marks(project)}</svg>`;
}

/** Degrees between the lines of a graticule, and kilometres of a scale. */
const STEPS = [0.05, 0.1, 0.25, 0.5, 1, 2, 5, 10, 15, 30];
const SCALES = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000];

type Project = (p: Point) => [number, number];

/** The names of a chart; of its towns those for which there is room. */
function nameTexts(features: readonly ChartFeature[], project: Project, clear: ReturnType<typeof roomForNames>): Html[] {
  return features.flatMap(({ properties: { name = '', rank, water }, geometry }) => {
    if (geometry.type !== 'Point') return [];
    const [x, y] = project({ lng: geometry.coordinates[0], lat: geometry.coordinates[1] });
    if (rank !== undefined && !clear(x, y, name)) return [];
    const look = water ? html` class="sea"` : rank === undefined ? '' : html` class="town"`;
    return [html`<text x="${x.toFixed(1)}" y="${y.toFixed(1)}" text-anchor="middle"${look}>${name}</text>`];
  });
}

function graticule(bounds: Bounds, project: Project, width: number, height: number): Html {
  const wide = (bounds.east - bounds.west) / 6;
  const step = STEPS.find((degrees) => degrees >= wide) ?? 30;
  const lines: string[] = [];
  for (let lng = Math.ceil((bounds.west - 1) / step) * step; lng < bounds.east + 1; lng += step) {
    const x = project({ lat: bounds.south, lng })[0];
    if (x > 0 && x < width) lines.push(`M${x.toFixed(1)} 0V${height}`);
  }
  for (let lat = Math.ceil((bounds.south - 1) / step) * step; lat < bounds.north + 1; lat += step) {
    const y = project({ lat, lng: bounds.west })[1];
    if (y > 0 && y < height) lines.push(`M0 ${y.toFixed(1)}H${width}`);
  }
  return html`<path class="grat" d="${lines.join('')}" fill="none"/>`;
}

function scaleBar(bounds: Bounds, project: Project, height: number): Html {
  const a = { lat: bounds.south, lng: bounds.west };
  const b = { lat: bounds.south, lng: bounds.east };
  const perKm = (project(b)[0] - project(a)[0]) / distanceKm(a, b);
  const km = SCALES.findLast((one) => perKm * one <= 160) ?? 1;
  const length = perKm * km;
  return html`<g stroke="var(--ink)" fill="none"><path d="M20 ${height - 26}v8M20 ${height - 22}h${length.toFixed(1)}M${(20 + length).toFixed(1)} ${height - 26}v8M${(20 + length / 2).toFixed(1)} ${height - 25}v6"/></g><text x="${(28 + length).toFixed(1)}" y="${height - 17}" class="[font:13px_var(--sans)]">${km} km</text>`;
}

/** The isles as an engraving: SVG drawn on the server, for readers without WebGL and for small maps. */
import { html, type Html, type Piece } from './html';
import { type Bounds, type Chart, distanceKm, type Point, projection } from '@/core/geo/geo';

export interface ChartDrawing {
  chart: Chart | undefined;
  bounds: Bounds;
  width: number;
  height: number;
  /** what to draw on top, in the chart's own coordinates */
  marks: (project: (point: Point) => [number, number]) => Piece;
  names: boolean;
}

type Position = [number, number];

export function chartSvg({ chart, bounds, width, height, marks, names }: ChartDrawing): Html {
  const project = projection(bounds, width, height);
  const at = ([lng, lat]: Position): string =>
    project({ lat, lng })
      .map((n) => n.toFixed(1))
      .join(' ');
  const line = (points: Position[]): string => points.map((p, i) => `${i ? 'L' : 'M'}${at(p)}`).join('');
  const features = chart?.features ?? [];
  const land = features.flatMap((f) => (f.geometry.type === 'Polygon' ? [`${line(f.geometry.coordinates[0] ?? [])}Z`] : [])).join('');
  const parts = [graticule(bounds, project, width, height)];
  // Two water-lines follow each coast: wide strokes, each covered by a narrower one of sea.
  if (land) {
    for (const [w, colour] of [
      [19, ''],
      [17, 'sea'],
      [11, ''],
      [9, 'sea'],
    ] as const) {
      parts.push(
        html`<path d="${land}" fill="none" stroke-linejoin="round" stroke-width="${w}" stroke="${colour ? 'var(--ground)' : 'color-mix(in srgb, var(--tide) 30%, var(--ground))'}"/>`,
      );
    }
  }
  for (const f of features) {
    if (f.geometry.type === 'LineString') parts.push(html`<path class="${f.properties.kind}" d="${line(f.geometry.coordinates)}"/>`);
  }
  if (land) parts.push(html`<path class="land" d="${land}"/>`);
  for (const f of features) {
    if (!names || f.geometry.type !== 'Point') continue;
    const [x, y] = project({ lng: f.geometry.coordinates[0], lat: f.geometry.coordinates[1] });
    parts.push(
      html`<text x="${x.toFixed(1)}" y="${y.toFixed(1)}" text-anchor="middle"${f.properties.water ? html` class="sea"` : ''}>${f.properties.name ?? ''}</text>`,
    );
  }
  if (names) parts.push(scaleBar(bounds, project, height));
  return html`<svg class="base" viewBox="0 0 ${width} ${height}" preserveAspectRatio="xMidYMid slice" role="img" aria-label="Chart">${parts}${marks(project)}</svg>`;
}

function graticule(bounds: Bounds, project: (p: Point) => [number, number], width: number, height: number): Html {
  const step = (bounds.east - bounds.west) / 5 > 0.05 ? 0.1 : 0.05;
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

function scaleBar(bounds: Bounds, project: (p: Point) => [number, number], height: number): Html {
  const a = { lat: bounds.south, lng: bounds.west };
  const b = { lat: bounds.south, lng: bounds.east };
  const perKm = (project(b)[0] - project(a)[0]) / distanceKm(a, b);
  const km = perKm * 5 > 160 ? 2 : 5;
  const length = perKm * km;
  return html`<g stroke="var(--ink)" fill="none"><path d="M20 ${height - 26}v8M20 ${height - 22}h${length.toFixed(1)}M${(20 + length).toFixed(1)} ${height - 26}v8M${(20 + length / 2).toFixed(1)} ${height - 25}v6"/></g><text x="${(28 + length).toFixed(1)}" y="${height - 17}" class="[font:13px_var(--sans)]">${km} km</text>`;
}

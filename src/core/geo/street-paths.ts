/** Streets of a small chart as paths of SVG: one or two a kind, from the ground up. Colours are tokens of the look. */
import type { ChartFeature, Point } from './geo';
import { STREET_KINDS, type StreetKind, type StreetShape } from './street-tiles';

/** A path with how it is drawn, in the drawing's own units. */
export interface StreetPath {
  d: string;
  fill: string;
  stroke: string;
  width: number;
  /** SVG's dashes; '' = none */
  dash: string;
}

interface Look {
  fill: string;
  lines: readonly { width: number; stroke: string; dash?: string }[];
}

/** How each kind is drawn: what is filled, and lines by their width and ink. */
const LOOKS: Record<StreetKind, Look> = {
  water: {
    fill: 'color-mix(in srgb, var(--tide) 22%, var(--ground))',
    lines: [{ width: 1, stroke: 'color-mix(in srgb, var(--tide) 45%, var(--ground))' }],
  },
  green: { fill: 'color-mix(in srgb, var(--tide-wash) 75%, var(--sheet))', lines: [] },
  area: { fill: 'color-mix(in srgb, var(--amber-wash) 45%, var(--sheet))', lines: [{ width: 1, stroke: 'var(--ink-3)' }] },
  building: { fill: 'color-mix(in srgb, var(--ink-3) 16%, var(--sheet))', lines: [] },
  rail: { fill: 'none', lines: [{ width: 1.6, stroke: 'var(--ink-3)', dash: '6 3' }] },
  path: { fill: 'none', lines: [{ width: 1, stroke: 'var(--ink-3)', dash: '2 2' }] },
  minor: {
    fill: 'none',
    lines: [
      { width: 4.5, stroke: 'var(--rule)' },
      { width: 3, stroke: 'var(--sheet)' },
    ],
  },
  major: {
    fill: 'none',
    lines: [
      { width: 6.5, stroke: 'var(--ink-3)' },
      { width: 4.5, stroke: 'var(--amber-wash)' },
    ],
  },
};

const isStreetKind = (kind: string): kind is StreetKind => STREET_KINDS.some((one) => one === kind);

/** Is a feature of a chart drawn as streets and what lies between them are? */
export const isGround = ({ properties: { kind } }: ChartFeature): boolean => isStreetKind(kind);

/** Those features of a chart as shapes. */
export function groundShapes(features: readonly ChartFeature[]): StreetShape[] {
  return features.flatMap(({ properties: { kind }, geometry }): StreetShape[] => {
    if (!isStreetKind(kind) || geometry.type === 'Point') return [];
    const closed = geometry.type === 'Polygon';
    return [{ kind, closed, lines: closed ? geometry.coordinates : [geometry.coordinates] }];
  });
}

/** What is drawn of one kind: its surfaces, and its lines. */
function drawn(shapes: readonly StreetShape[], project: (point: Point) => [number, number], width: number, height: number) {
  const near = ([x, y]: [number, number]): boolean => x > -width && x < 2 * width && y > -height && y < 2 * height;
  const paths = { filled: '', lined: '' };
  for (const { closed, lines } of shapes)
    for (const line of lines) {
      const points = line.map(([lng, lat]) => project({ lat, lng }));
      if (!points.some(near)) continue;
      const d = points.map(([x, y], i) => `${i ? 'L' : 'M'}${x.toFixed(1)} ${y.toFixed(1)}`).join('');
      if (closed) paths.filled += `${d}Z`;
      else paths.lined += d;
    }
  return paths;
}

/** The paths of some shapes on a drawing of `width` × `height`; what lies far outside of it is left out. */
export function streetPaths(
  shapes: readonly StreetShape[],
  project: (point: Point) => [number, number],
  width: number,
  height: number,
): StreetPath[] {
  return STREET_KINDS.flatMap((kind) => {
    const { filled, lined } = drawn(
      shapes.filter((shape) => shape.kind === kind),
      project,
      width,
      height,
    );
    const { fill, lines } = LOOKS[kind];
    const [edge] = lines;
    const outline = kind === 'area' && edge ? { stroke: edge.stroke, width: edge.width } : { stroke: 'none', width: 0 };
    const surfaces = filled && fill !== 'none' ? [{ d: filled, fill, ...outline, dash: '' }] : [];
    const ways = lined ? lines.map(({ width: wide, stroke, dash = '' }) => ({ d: lined, fill: 'none', stroke, width: wide, dash })) : [];
    return [...surfaces, ...ways];
  });
}

/**
 * The Kittiwick Isles, an invented archipelago in open ocean: four islands, ferries, a causeway. Coasts are closed
 * curves through hand-set points, smoothed here (Catmull-Rom) so that the stored chart is plain GeoJSON.
 */
import type { ChartFeature } from '@/core/geo/geo';

type Position = [number, number];

/** Chart units of the drawing board to degrees: 100 units are about 4 km. */
const ORIGIN = { lng: -57.62, lat: 43.28 };
export const onBoard = (x: number, y: number): Position => [
  Number((ORIGIN.lng + x * 0.0005).toFixed(5)),
  Number((ORIGIN.lat - y * 0.00036).toFixed(5)),
];

const COASTS: [number, number][][] = [
  // Amble
  [
    [75, 170],
    [80, 130],
    [110, 110],
    [130, 75],
    [165, 45],
    [215, 70],
    [245, 90],
    [290, 110],
    [312, 160],
    [340, 185],
    [352, 225],
    [335, 255],
    [330, 295],
    [280, 300],
    [205, 310],
    [180, 330],
    [120, 300],
    [70, 275],
    [85, 220],
  ],
  // Lantern
  [
    [378, 130],
    [415, 125],
    [455, 105],
    [498, 120],
    [552, 118],
    [558, 160],
    [530, 190],
    [524, 230],
    [494, 250],
    [440, 258],
    [412, 222],
    [396, 195],
    [382, 165],
  ],
  // Gannet
  [
    [340, 470],
    [380, 445],
    [405, 400],
    [455, 355],
    [500, 340],
    [540, 370],
    [565, 400],
    [560, 435],
    [590, 470],
    [580, 520],
    [545, 560],
    [500, 570],
    [465, 540],
    [420, 535],
    [370, 515],
  ],
  // Skerry
  [
    [100, 480],
    [125, 455],
    [165, 462],
    [195, 478],
    [200, 505],
    [175, 525],
    [150, 545],
    [115, 535],
    [95, 510],
  ],
];

function smooth(points: [number, number][], per = 7): Position[] {
  const n = points.length;
  const at = (i: number): [number, number] => points[(i + n) % n] as [number, number];
  const out: Position[] = [];
  for (let i = 0; i < n; i++) {
    const [p0, p1, p2, p3] = [at(i - 1), at(i), at(i + 1), at(i + 2)];
    for (let k = 0; k < per; k++) {
      const t = k / per;
      const c = (axis: 0 | 1): number =>
        0.5 *
        (2 * p1[axis] +
          (p2[axis] - p0[axis]) * t +
          (2 * p0[axis] - 5 * p1[axis] + 4 * p2[axis] - p3[axis]) * t ** 2 +
          (3 * p1[axis] - p0[axis] - 3 * p2[axis] + p3[axis]) * t ** 3);
      // A small wobble keeps the coast from looking like a blot.
      const wobble = Math.sin((i * per + k) * 2.3) * 1.6;
      out.push(onBoard(c(0) + wobble, c(1) - wobble));
    }
  }
  out.push(out[0] as Position);
  return out;
}

const land = (points: [number, number][]): ChartFeature => ({
  type: 'Feature',
  properties: { kind: 'land' },
  geometry: { type: 'Polygon', coordinates: [smooth(points)] },
});
const route = (kind: 'ferry' | 'causeway', points: [number, number][]): ChartFeature => ({
  type: 'Feature',
  properties: { kind },
  geometry: { type: 'LineString', coordinates: points.map(([x, y]) => onBoard(x, y)) },
});
const name = (text: string, x: number, y: number, water = false): ChartFeature => ({
  type: 'Feature',
  properties: { kind: 'name', name: text, ...(water ? { water } : {}) },
  geometry: { type: 'Point', coordinates: onBoard(x, y) },
});

const [west, north] = onBoard(0, 0);
const [east, south] = onBoard(660, 620);

/** The isles as a GeoJSON file, as an operator would give a drawing to a site. */
export const ISLES = {
  type: 'FeatureCollection',
  bbox: [west, south, east, north],
  features: [
    ...COASTS.map(land),
    route('ferry', [
      [345, 205],
      [370, 212],
      [396, 200],
    ]),
    route('ferry', [
      [350, 228],
      [390, 290],
      [430, 325],
      [452, 357],
    ]),
    route('ferry', [
      [250, 303],
      [300, 380],
      [345, 440],
      [350, 462],
    ]),
    route('causeway', [
      [178, 330],
      [172, 400],
      [162, 462],
    ]),
    name('Amble', 195, 120),
    name('Lantern', 480, 140),
    name('Gannet', 455, 520),
    name('Skerry', 240, 520),
    name('The Sound', 545, 300, true),
    name('Low-tide causeway', 95, 390, true),
  ],
};

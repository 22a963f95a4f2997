/** A chart of any part of the world, cut from its coasts and borders: what a site has before somebody gives it a map of its own. */
import { bboxClip } from '@turf/bbox-clip';
import type { BBox, Feature, LineString, MultiLineString, MultiPolygon, Polygon } from 'geojson';
import { feature, mesh } from 'topojson-client';
import type { GeometryCollection, Topology } from 'topojson-specification';
import { type Bounds, type Chart, type ChartFeature, holds, inBounds, type Point } from './geo';
import type { Town } from './towns';

/** Land and countries with the arcs that they share (TopoJSON). */
export type World = Topology<{ land: GeometryCollection; countries: GeometryCollection }>;

/** The same as lines and surfaces, each with its own bounds, so that a part is found without looking at all of it. */
export interface WorldShapes {
  land: { bounds: Bounds; rings: Position[][] }[];
  coasts: { bounds: Bounds; line: Position[] }[];
  borders: { bounds: Bounds; line: Position[] }[];
  /** big lakes; their shores are coasts, too */
  lakes: { bounds: Bounds; rings: Position[][] }[];
}

type Position = [number, number];

/** How far a site's chart reaches around its middle to north and south, in degrees: some 330 km. */
const REACH = 3;
/** Towards the poles degrees of longitude become short, up to this many of them. */
const WIDEST = 12;
/** What is shown before anybody moves it, in degrees to north and south: some 35 km. */
const SHOWN = 0.32;
/** Most towns that a chart names. */
const MOST_NAMES = 400;
/** The wire has so many decimals of a degree: ten metres. */
const DECIMALS = 1e4;

function boundsOfLine(line: readonly Position[]): Bounds {
  const bounds = { west: 720, south: 90, east: -720, north: -90 };
  for (const [x, y] of line) {
    bounds.west = Math.min(bounds.west, x);
    bounds.east = Math.max(bounds.east, x);
    bounds.south = Math.min(bounds.south, y);
    bounds.north = Math.max(bounds.north, y);
  }
  return bounds;
}

const overlap = (a: Bounds, b: Bounds): boolean => a.west <= b.east && a.east >= b.west && a.south <= b.north && a.north >= b.south;

/** A line that goes on where it crosses the date line, instead of leaping around the earth. */
function goingOn(line: readonly Position[]): Position[] {
  let turn = 0;
  return line.map(([x, y], i) => {
    const before = line[i - 1]?.[0] ?? x;
    if (x - before > 180) turn -= 360;
    if (before - x > 180) turn += 360;
    return [x + turn, y];
  });
}

/** A ring that goes around a pole does not come back to where it began: it is closed along the pole. */
function closedRing(ring: readonly Position[]): Position[] {
  const [first, last] = [ring[0], ring.at(-1)];
  if (!first || !last || Math.abs(first[0] - last[0]) < 180) return [...ring];
  const pole = first[1] < 0 ? -90 : 90;
  return [...ring, [last[0], pole], [first[0], pole], first];
}

const bounded = (all: readonly Position[][][]): WorldShapes['land'] =>
  all.map((rings) => ({ bounds: boundsOfLine(rings[0] ?? []), rings }));

/** Takes a world apart into its shapes. `lakes`: rings of each, its shore first. */
export function shapesOf(world: World, lakes: readonly Position[][][] = []): WorldShapes {
  const land = feature(world, world.objects.land);
  const polygons = land.features.flatMap(({ geometry }) => {
    if (geometry.type === 'Polygon') return [geometry.coordinates];
    return geometry.type === 'MultiPolygon' ? geometry.coordinates : [];
  }) as Position[][][];
  const lines = (all: Position[][]): WorldShapes['coasts'] => all.map((line) => ({ bounds: boundsOfLine(line), line }));
  const shores = polygons.map((rings) => rings.map(goingOn));
  const borders = mesh(world, world.objects.countries as Parameters<typeof mesh>[1], (a, b) => a !== b);
  return {
    land: bounded(shores.map((rings) => rings.map(closedRing))),
    coasts: lines([...shores.flat(), ...lakes.flat()]),
    lakes: bounded(lakes),
    borders: lines((borders.coordinates as Position[][]).map(goingOn)),
  };
}

/** The bounds around a point that a site's chart shows first. */
export function partAround({ lat, lng }: Point, reach = SHOWN, widest = WIDEST): Bounds {
  const wide = Math.min(widest, (reach * 1.5) / Math.max(0.05, Math.cos((lat * Math.PI) / 180)));
  return { west: lng - wide, east: lng + wide, south: Math.max(-85, lat - reach), north: Math.min(85, lat + reach) };
}

const round = (n: number): number => Math.round(n * DECIMALS) / DECIMALS;

/** A line without neighbours that fall together. */
function written(line: readonly number[][], turn: number): Position[] {
  const points = line.map(([x = 0, y = 0]): Position => [round(x + turn), round(y)]);
  return points.filter((p, i) => i === 0 || p[0] !== points[i - 1]?.[0] || p[1] !== points[i - 1]?.[1]);
}

/** The whole world, or a part of it, as features; a part may reach over the date line, where longitudes go on beyond 180. */
export function featuresWithin(world: WorldShapes, bounds: Bounds): ChartFeature[] {
  return [0, 360, -360].flatMap((turn) => {
    const there = { ...bounds, west: bounds.west - turn, east: bounds.east - turn };
    const box: BBox = [there.west, there.south, there.east, there.north];
    const near = <T extends { bounds: Bounds }>(all: readonly T[]): T[] => all.filter((one) => overlap(one.bounds, there));
    const surfaces = (all: WorldShapes['land'], kind: 'land' | 'lake'): ChartFeature[] =>
      near(all).flatMap(({ rings }) =>
        surfacesOf(rings, box).map((part) =>
          surfaceFeature(
            kind,
            part.map((ring) => written(ring, turn)),
          ),
        ),
      );
    const lines = (all: WorldShapes['coasts'], kind: 'coast' | 'border'): ChartFeature[] =>
      near(all).flatMap(({ line }) => linesOf(line, box).map((part) => lineFeature(kind, written(part, turn))));
    return [
      ...surfaces(world.land, 'land'),
      ...surfaces(world.lakes, 'lake'),
      ...lines(world.coasts, 'coast'),
      ...lines(world.borders, 'border'),
    ];
  });
}

/** What of a chart's features lies within bounds, cut at their edges. */
export function clipped(features: readonly ChartFeature[], bounds: Bounds): ChartFeature[] {
  const box: BBox = [bounds.west, bounds.south, bounds.east, bounds.north];
  return features.flatMap((one): ChartFeature[] => {
    const { geometry } = one;
    if (geometry.type === 'Point') return inBounds({ lng: geometry.coordinates[0], lat: geometry.coordinates[1] }, bounds) ? [one] : [];
    const outer = geometry.type === 'Polygon' ? (geometry.coordinates[0] ?? []) : geometry.coordinates;
    const around = boundsOfLine(outer);
    if (!overlap(around, bounds)) return [];
    if (holds(bounds, around)) return [one];
    if (geometry.type === 'Polygon')
      return surfacesOf(geometry.coordinates, box).map((rings) => ({
        ...one,
        geometry: { type: 'Polygon', coordinates: rings as Position[][] },
      }));
    return linesOf(geometry.coordinates, box).map((line) => ({
      ...one,
      geometry: { type: 'LineString', coordinates: line as Position[] },
    }));
  });
}

const surfaceFeature = (kind: 'land' | 'lake', coordinates: Position[][]): ChartFeature => ({
  type: 'Feature',
  properties: { kind },
  geometry: { type: 'Polygon', coordinates },
});

const lineFeature = (kind: 'coast' | 'border', coordinates: Position[]): ChartFeature => ({
  type: 'Feature',
  properties: { kind },
  geometry: { type: 'LineString', coordinates },
});

function surfacesOf(rings: Position[][], box: BBox): number[][][][] {
  const { geometry } = bboxClip({ type: 'Feature', properties: {}, geometry: { type: 'Polygon', coordinates: rings } }, box) as Feature<
    Polygon | MultiPolygon
  >;
  const polygons = geometry.type === 'Polygon' ? [geometry.coordinates] : geometry.coordinates;
  return polygons.filter(([outer]) => (outer?.length ?? 0) > 3);
}

function linesOf(line: Position[], box: BBox): number[][][] {
  const { geometry } = bboxClip({ type: 'Feature', properties: {}, geometry: { type: 'LineString', coordinates: line } }, box) as Feature<
    LineString | MultiLineString
  >;
  const lines = geometry.type === 'LineString' ? [geometry.coordinates] : geometry.coordinates;
  return lines.filter(({ length }) => length > 1);
}

/** What a chart around a point reaches. */
export const reachOf = (middle: Point): Bounds => partAround(middle, REACH);

/** Beside the date line everything stands on both of its sides: a venue at 179.9° west is on the chart of a town at 179.9° east. */
function turnsOf({ west, east }: Bounds): number[] {
  if (east > 180) return [0, -360];
  return west < -180 ? [0, 360] : [0];
}

/** Towns as names, the first of them of the lowest rank; `turn`: so many degrees to the east of where they are. */
export const nameFeatures = (towns: readonly Town[], turn = 0): ChartFeature[] =>
  towns.map(({ name, lat, lng }, rank) => ({
    type: 'Feature',
    properties: { kind: 'name', name, rank },
    geometry: { type: 'Point', coordinates: [round(lng + turn), round(lat)] },
  }));

/** The chart of a site around its town. `towns`: those within {@link reachOf}, the largest first. */
export function chartAround(world: WorldShapes, middle: Point, towns: readonly Town[]): Chart {
  const reach = reachOf(middle);
  const turns = turnsOf(reach);
  const named = towns.filter((town) => inBounds(town, reach)).slice(0, MOST_NAMES);
  const names = turns.flatMap((turn) => nameFeatures(named, turn));
  const features = turns.flatMap((turn) => featuresWithin(world, { ...reach, west: reach.west + turn, east: reach.east + turn }));
  return { bounds: partAround(middle), features: [...features, ...names] };
}

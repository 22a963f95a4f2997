import { GeoJSONVT } from '@maplibre/geojson-vt';
import { fromGeojsonVt } from '@maplibre/vt-pbf';
import { describe, expect, it } from 'vitest';
import { random as randomOf } from '../../../tests/support/generate';
import { smallTown } from '../../../tests/support/street-archive';
import { type Bounds, inBounds } from './geo';
import { kindOf, layersOf, readStreetTile, tileAt, tilesOver, zoomFor } from './street-tiles';

const MIDDLE = { lat: 43.1, lng: -57.4 };

describe('tiles of a street map', () => {
  it('are those that bounds touch, and the tile of a point is among them', () => {
    const random = randomOf(20);
    for (let i = 0; i < 200; i++) {
      const bounds: Bounds = { west: random() * 340 - 170, south: random() * 140 - 70, east: 0, north: 0 };
      bounds.east = bounds.west + random() * 4;
      bounds.north = bounds.south + random() * 4;
      const z = Math.floor(random() * 9);
      const tiles = tilesOver(bounds, z);
      const keys = new Set(tiles.map(({ x, y }) => `${x} ${y}`));
      expect(keys.size).toBe(tiles.length);
      for (let k = 0; k < 10; k++) {
        const at = tileAt(
          { lat: bounds.south + random() * (bounds.north - bounds.south), lng: bounds.west + random() * (bounds.east - bounds.west) },
          z,
        );
        expect(keys.has(`${at.x} ${at.y}`)).toBe(true);
      }
    }
    // The world is one tile; its poles and its last degree belong to it.
    expect([tileAt({ lat: 90, lng: 180 }, 1), tileAt({ lat: -90, lng: -180 }, 1)]).toEqual([
      { z: 1, x: 1, y: 0 },
      { z: 1, x: 0, y: 1 },
    ]);
  });

  it('are taken from the zoom that suits the width, and never more than may be read', () => {
    const near = { west: -57.406, south: 43.094, east: -57.394, north: 43.106 };
    expect(zoomFor(near, 270, { most: 15, tiles: 6 })).toBe(14);
    expect(zoomFor(near, 270, { most: 12, tiles: 6 })).toBe(12);
    const wide = { west: -90, south: 10, east: 0, north: 70 };
    const zoom = zoomFor(wide, 4000, { most: 15, tiles: 6 });
    expect(tilesOver(wide, zoom).length).toBeLessThanOrEqual(6);
  });

  it('say what is drawn, where it is to a few metres', () => {
    const { layers } = smallTown(MIDDLE);
    const place = tileAt(MIDDLE, 14);
    const tiles = Object.fromEntries(
      Object.entries(layers).flatMap(([name, features]) => {
        const tile = new GeoJSONVT({ type: 'FeatureCollection', features }, { maxZoom: 14, indexMaxZoom: 14 }).getTile(
          place.z,
          place.x,
          place.y,
        );
        return tile ? [[name, tile]] : [];
      }),
    );
    const bytes = fromGeojsonVt(tiles, { version: 2, extent: 4096 });
    const shapes = readStreetTile(bytes, place);
    expect(new Set(shapes.map(({ kind }) => kind))).toEqual(new Set(['green', 'building', 'path', 'minor', 'major']));
    const [park] = shapes.filter(({ kind }) => kind === 'green');
    expect(park?.closed).toBe(true);
    const corners = park?.lines.flat() ?? [];
    expect(Math.min(...corners.map(([lng]) => lng))).toBeCloseTo(MIDDLE.lng + 0.0015, 4);
    expect(Math.max(...corners.map(([, lat]) => lat))).toBeCloseTo(MIDDLE.lat - 0.001, 4);
    expect(layersOf(bytes)).toContain('roads');
    // Of a part what lies in it, as the whole has it: nothing that it shows is missing.
    const part = { west: MIDDLE.lng - 0.004, east: MIDDLE.lng + 0.004, south: MIDDLE.lat - 0.003, north: MIDDLE.lat + 0.003 };
    const some = readStreetTile(bytes, place, part);
    expect(some.length).toBeLessThan(shapes.length);
    const inPart = shapes.filter(({ lines }) => lines.flat().some(([lng, lat]) => inBounds({ lat, lng }, part)));
    expect(inPart.length).toBeGreaterThan(0);
    for (const shape of inPart) expect(some).toContainEqual(shape);
    expect(() => readStreetTile(new Uint8Array([26, 200, 1, 2, 3]), place)).toThrow();
  });

  it('draw ways by their kind, and nothing that they do not know', () => {
    expect([
      kindOf('roads', 'highway'),
      kindOf('roads', 'minor_road'),
      kindOf('roads', 'aerialway'),
      kindOf('landuse', 'forest'),
      kindOf('landuse', 'runway'),
      kindOf('water', 'ocean'),
      kindOf('pois', 'cafe'),
      kindOf('roads', 'constructor'),
    ]).toEqual(['major', 'minor', undefined, 'green', undefined, 'water', undefined, undefined]);
  });
});

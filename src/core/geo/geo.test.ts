import { describe, expect, it } from 'vitest';
import { boundsOf, directionsOf, distanceKm, holds, inBounds, projection, readBounds, shownBounds, writeBounds } from './geo';

describe('places on a chart', () => {
  const points = [
    { lat: 43.1, lng: -57.6 },
    { lat: 43.4, lng: -57.2 },
  ];
  it('have bounds with a margin, or none when there are no places', () => {
    expect(boundsOf(points, 0.1)).toEqual({ west: -57.7, east: expect.closeTo(-57.1), south: 43, north: 43.5 });
    expect(boundsOf([])).toBeUndefined();
  });
  it('are projected true to scale inside the box', () => {
    const bounds = { west: -58, east: -57, south: 43, north: 44 };
    const at = projection(bounds, 400, 300);
    const [[x1, y1], [x2, y2]] = [at({ lat: 43.5, lng: -57.6 }), at({ lat: 43.5, lng: -57.4 })];
    const [, y3] = at({ lat: 43.6, lng: -57.6 });
    expect(y1).toBeCloseTo(y2);
    const kmAcross = distanceKm({ lat: 43.5, lng: -57.6 }, { lat: 43.5, lng: -57.4 });
    const kmUp = distanceKm({ lat: 43.5, lng: -57.6 }, { lat: 43.6, lng: -57.6 });
    expect((x2 - x1) / kmAcross / ((y1 - y3) / kmUp)).toBeCloseTo(1, 2);
    for (const lat of [43, 44])
      for (const lng of [-58, -57]) {
        const [x, y] = at({ lat, lng });
        expect(x >= -1e-9 && x <= 400.0001 && y >= -1e-9 && y <= 300.0001).toBe(true);
      }
  });
  it('lie as far apart as a sphere says', () => {
    expect(distanceKm({ lat: 0, lng: 0 }, { lat: 0, lng: 90 })).toBeCloseTo((Math.PI / 2) * 6371, 3);
    expect(distanceKm({ lat: 90, lng: 0 }, { lat: -90, lng: 50 })).toBeCloseTo(Math.PI * 6371, 3);
    expect(distanceKm({ lat: 43, lng: -57 }, { lat: 43, lng: -57 })).toBe(0);
  });
  it('give directions as an address that any map program reads', () => {
    expect(directionsOf({ lat: 43.123456, lng: -57.4 }, '')).toEqual({ geo: 'geo:43.12346,-57.40000', web: '' });
    expect(directionsOf({ lat: 43.1, lng: -57.4 }, 'https://map.example/{lat}/{lng}#{lat}').web).toBe(
      'https://map.example/43.10000/-57.40000#43.10000',
    );
  });
});

describe('what a box shows', () => {
  const bounds = { west: -57.6, south: 43, east: -57.2, north: 43.5 };
  it.each([
    [270, 150],
    [150, 270],
    [400, 400],
  ])('of %i × %i goes to its corners, and holds what was asked for', (width, height) => {
    const shown = shownBounds(bounds, width, height);
    expect(
      holds({ ...shown, west: shown.west - 1e-9, south: shown.south - 1e-9, east: shown.east + 1e-9, north: shown.north + 1e-9 }, bounds),
    ).toBe(true);
    const project = projection(bounds, width, height);
    const [left, top] = project({ lat: shown.north, lng: shown.west });
    const [right, bottom] = project({ lat: shown.south, lng: shown.east });
    for (const [is, should] of [
      [left, 0],
      [top, 0],
      [right, width],
      [bottom, height],
    ] as const)
      expect(is).toBeCloseTo(should, 6);
  });
  it('is not held by what is smaller to one side', () => {
    expect([holds(bounds, bounds), holds(bounds, { ...bounds, east: -57.1 }), holds(bounds, { ...bounds, south: 42 })]).toEqual([
      true,
      false,
      false,
    ]);
  });
});

describe('bounds in an address', () => {
  it('are read as they were written', () => {
    const bounds = { west: -63.5512, south: 44.1, east: -63.2, north: 44.25 };
    expect(readBounds(writeBounds(bounds))).toEqual(bounds);
    expect([inBounds({ lat: 44.1, lng: -63.2 }, bounds), inBounds({ lat: 44.09, lng: -63.3 }, bounds)]).toEqual([true, false]);
  });
  it.each(['', '1,2,3', '1,2,3,4,5', '3,2,1,4', '1,4,3,2', '-181,0,1,1', '0,0,1,91', 'a,b,c,d', '1e1,0,20,20', '0,,1,1', ' 0,0,1,1'])(
    '“%s” is none',
    (text) => expect(readBounds(text)).toBeUndefined(),
  );
});

/** An invented world for tests of charts and tiles. */
import type { World } from '@/core/geo/cut-chart';

/** An invented world of four arcs: two countries with a border between them, an island that is cut at the date line, a lake in the land. */
export const SQUARE: World = {
  type: 'Topology',
  arcs: [
    [
      [0, 0],
      [10, 0],
      [10, 10],
      [0, 10],
      [0, 0],
    ],
    [
      [4, 4],
      [4, 6],
      [6, 6],
      [6, 4],
      [4, 4],
    ],
    [
      [178, 40],
      [180, 40],
      [180, 44],
      [178, 44],
      [178, 40],
    ],
    [
      [-180, 40],
      [-178, 40],
      [-178, 44],
      [-180, 44],
      [-180, 40],
    ],
  ],
  objects: {
    land: { type: 'GeometryCollection', geometries: [{ type: 'MultiPolygon', arcs: [[[0], [1]], [[2]], [[3]]] }] },
    countries: {
      type: 'GeometryCollection',
      geometries: [
        { type: 'Polygon', arcs: [[0], [1]] },
        { type: 'Polygon', arcs: [[~1]] },
      ],
    },
  },
};

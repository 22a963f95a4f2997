import { describe, expect, it } from 'vitest';
import type { Point } from './geo';
import { streetPaths } from './street-paths';
import type { StreetShape } from './street-tiles';

const project = ({ lat, lng }: Point): [number, number] => [lng * 10, lat * 10];
const road = (kind: StreetShape['kind'], ...points: [number, number][]): StreetShape => ({ kind, closed: false, lines: [points] });

describe('streets as paths', () => {
  const shapes: StreetShape[] = [
    road('major', [0, 0], [10, 1]),
    road('minor', [0, 2], [10, 2]),
    {
      kind: 'water',
      closed: true,
      lines: [
        [
          [0, 0],
          [5, 0],
          [5, 5],
        ],
        [
          [1, 1],
          [2, 1],
          [2, 2],
        ],
      ],
    },
    {
      kind: 'building',
      closed: true,
      lines: [
        [
          [3, 3],
          [4, 3],
          [4, 4],
        ],
      ],
    },
    road('minor', [0, 4], [10, 4]),
  ];

  it('lie from the ground up, one a kind and ink, a surface with its holes', () => {
    const paths = streetPaths(shapes, project, 100, 100);
    expect(paths.map(({ d, width }) => [d, width])).toEqual([
      ['M0.0 0.0L50.0 0.0L50.0 50.0ZM10.0 10.0L20.0 10.0L20.0 20.0Z', 0],
      ['M30.0 30.0L40.0 30.0L40.0 40.0Z', 0],
      ['M0.0 20.0L100.0 20.0M0.0 40.0L100.0 40.0', 4.5],
      ['M0.0 20.0L100.0 20.0M0.0 40.0L100.0 40.0', 3],
      ['M0.0 0.0L100.0 10.0', 6.5],
      ['M0.0 0.0L100.0 10.0', 4.5],
    ]);
  });

  it('leave out what lies far outside, and a surface that would be a line', () => {
    expect(streetPaths([road('path', [900, 900], [910, 910])], project, 100, 100)).toEqual([]);
    expect(
      streetPaths(
        [
          {
            kind: 'rail',
            closed: true,
            lines: [
              [
                [0, 0],
                [1, 0],
                [1, 1],
              ],
            ],
          },
        ],
        project,
        100,
        100,
      ),
    ).toEqual([]);
    expect(streetPaths([], project, 100, 100)).toEqual([]);
  });
});

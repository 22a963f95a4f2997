/** Streets of a small chart as SVG: one path a kind, from the ground up. */
import type { Point } from '@/core/geo/geo';
import { STREET_KINDS, type StreetKind, type StreetShape } from '@/core/geo/street-tiles';
import { html, type Html } from './html';

/** How each kind is drawn: what is filled, and lines by their width and ink. */
const LOOKS: Record<StreetKind, { fill: string; lines: readonly { width: number; stroke: string; dash?: string }[] }> = {
  water: {
    fill: 'color-mix(in srgb, var(--tide) 22%, var(--ground))',
    lines: [{ width: 1, stroke: 'color-mix(in srgb, var(--tide) 45%, var(--ground))' }],
  },
  green: { fill: 'color-mix(in srgb, var(--tide-wash) 75%, var(--sheet))', lines: [] },
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

/** The paths of some shapes; what lies outside of the box is left out. */
export function streetPaths(
  shapes: readonly StreetShape[],
  project: (point: Point) => [number, number],
  width: number,
  height: number,
): Html[] {
  const near = ([x, y]: [number, number]): boolean => x > -width && x < 2 * width && y > -height && y < 2 * height;
  return STREET_KINDS.flatMap((kind) => {
    const drawn = { filled: '', lined: '' };
    for (const shape of shapes) {
      if (shape.kind !== kind) continue;
      for (const line of shape.lines) {
        const points = line.map(([lng, lat]) => project({ lat, lng }));
        if (!points.some(near)) continue;
        const path = points.map(([x, y], i) => `${i ? 'L' : 'M'}${x.toFixed(1)} ${y.toFixed(1)}`).join('');
        if (shape.closed) drawn.filled += `${path}Z`;
        else drawn.lined += path;
      }
    }
    const { fill, lines } = LOOKS[kind];
    return [
      ...(drawn.filled ? [html`<path d="${drawn.filled}" fill="${fill}" fill-rule="evenodd"/>`] : []),
      ...(drawn.lined
        ? lines.map(
            ({ width: w, stroke, dash }) =>
              html`<path d="${drawn.lined}" fill="none" stroke-linecap="${dash ? 'butt' : 'round'}" stroke-linejoin="round" stroke="${stroke}" stroke-width="${w}" stroke-dasharray="${dash ?? 'none'}"/>`,
          )
        : []),
    ];
  });
}

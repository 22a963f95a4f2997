/** Category marks: ten shapes in a 12 × 12 box, as SVG path data. The shape carries the meaning; the ink only helps. */

/** The shapes that marks have, told apart without colour. */
export const SHAPES = ['triangle', 'disc', 'square', 'diamond', 'bar', 'ring', 'cross', 'half-disc', 'chevron', 'star'] as const;
/** One of {@link SHAPES}. */
export type Shape = (typeof SHAPES)[number];

/** How a category is drawn: its shape and its ink. */
export interface Mark {
  shape: Shape;
  /** the chosen ink, #rrggbb; what is shown is {@link inksOf} of it */
  ink: string;
}

/** Twelve inks to choose from, each readable on light and dark after adjustment. */
export const PALETTE: { name: string; ink: string }[] = [
  { name: 'Deep water', ink: '#0b5cad' },
  { name: 'Tide', ink: '#0c6b75' },
  { name: 'Kelp', ink: '#2f6b1f' },
  { name: 'Moss', ink: '#5d6b12' },
  { name: 'Rope', ink: '#8a5a00' },
  { name: 'Rust', ink: '#a34a08' },
  { name: 'Buoy', ink: '#b0211c' },
  { name: 'Thrift', ink: '#b02a6a' },
  { name: 'Heather', ink: '#86308f' },
  { name: 'Dusk', ink: '#5646a5' },
  { name: 'Slate', ink: '#465562' },
  { name: 'Peat', ink: '#6b4a3a' },
];

const PATHS: Record<Shape, string> = {
  triangle: 'M6 1.2 11.4 11H.6z',
  disc: 'M6 1a5 5 0 1 1 0 10A5 5 0 0 1 6 1z',
  square: 'M1.4 1.4h9.2v9.2H1.4z',
  diamond: 'M6 .6 11.4 6 6 11.4.6 6z',
  bar: 'M.4 4h11.2v4H.4z',
  ring: 'M6 .8a5.2 5.2 0 1 1 0 10.4A5.2 5.2 0 0 1 6 .8zm0 2.7a2.5 2.5 0 1 0 0 5 2.5 2.5 0 0 0 0-5z',
  cross: 'M4.3.8h3.4v3.5h3.5v3.4H7.7v3.5H4.3V7.7H.8V4.3h3.5z',
  'half-disc': 'M.8 9a5.2 5.2 0 0 1 10.4 0z',
  chevron: 'M.8 3.2h3.6L6 5.6l1.6-2.4h3.6L6 10.8z',
  star: 'M6 .4 7.6 3.2l3.3 0L9.2 6l1.7 2.8-3.3 0L6 11.6 4.4 8.8l-3.3 0L2.8 6 1.1 3.2l3.3 0z',
};

/** The outline of a shape as an SVG path. */
export function pathOf(shape: Shape): string {
  return PATHS[shape];
}

/**
 * Which part of a picture each of its uses shows. A box is in fractions of the upright picture, so it outlives a change of size;
 * pixels are worked out where a file is made.
 */

/** whole: as it is; wide: covers; square: galleries and the Desk; share: cards on other sites. */
export const USES = ['whole', 'wide', 'square', 'share'] as const;
/** One of the uses of a picture. */
export type PictureUse = (typeof USES)[number];
/** The uses that cut something off. */
export const CROPPED = ['wide', 'square', 'share'] as const;
/** A use that shows a part of the picture. */
export type CroppedUse = (typeof CROPPED)[number];

/** Width to height. */
export const ASPECT: Record<CroppedUse, number> = { wide: 16 / 9, square: 1, share: 1200 / 630 };
/** The widths that files are made in, in pixels; the widest is how wide a use is ever shown. */
export const WIDTHS: Record<PictureUse, readonly number[]> = {
  whole: [320, 640, 1024, 1600],
  wide: [320, 640, 1024, 1600],
  square: [160, 320, 640],
  share: [1200],
};

/** Fractions of width and height, 0 to 1. */
export interface Point {
  x: number;
  y: number;
}
/** A part of a picture: its corner and size, as shares of the whole (0 to 1). */
export interface Box extends Point {
  w: number;
  h: number;
}
/** Width and height in pixels. */
export interface Size {
  width: number;
  height: number;
}
/** Boxes that somebody set by hand; the other uses follow the focal point. */
export interface Crops {
  format: 1;
  wide?: Box | undefined;
  square?: Box | undefined;
  share?: Box | undefined;
}
/** No crop was chosen: each is worked out. */
export const NO_CROPS: Crops = { format: 1 };
/** The middle of a picture. */
export const MIDDLE: Point = { x: 0.5, y: 0.5 };

/** What a crop follows from. */
export interface Framing extends Size {
  focus: Point;
  crops: Crops;
}

/** A part of a picture in its own pixels. */
export interface Pixels {
  left: number;
  top: number;
  width: number;
  height: number;
}

const clamp = (n: number, low: number, high: number): number => Math.min(Math.max(n, low), Math.max(low, high));

/** The largest box of an aspect, scaled by `scale` (0 to 1), with its middle as near to a point as the edges allow. */
export function boxAround({ width, height }: Size, aspect: number, at: Point, scale = 1): Box {
  const w = Math.min(1, (height * aspect) / width) * scale;
  const h = Math.min(1, width / aspect / height) * scale;
  return { x: clamp(at.x - w / 2, 0, 1 - w), y: clamp(at.y - h / 2, 0, 1 - h), w, h };
}

/** What a use shows. A box set by hand is brought to the use's aspect, for it may have been drawn on another picture. */
export function boxOf(use: PictureUse, framing: Framing): Box {
  if (use === 'whole') return { x: 0, y: 0, w: 1, h: 1 };
  const aspect = ASPECT[use];
  const byHand = framing.crops[use];
  if (!byHand) return boxAround(framing, aspect, framing.focus);
  const largest = boxAround(framing, aspect, MIDDLE);
  const scale = clamp(byHand.w / largest.w, SMALLEST, 1);
  return boxAround(framing, aspect, { x: byHand.x + byHand.w / 2, y: byHand.y + byHand.h / 2 }, scale);
}
/** A box set by hand takes at least so much of the largest one. */
export const SMALLEST = 0.2;

/** The same in pixels of the picture: inside it, at least one pixel, its aspect true to a pixel. */
export function pixelsOf(use: PictureUse, framing: Framing): Pixels {
  const { width: w, height: h } = framing;
  const box = boxOf(use, framing);
  const width = clamp(Math.round(box.w * w), 1, w);
  const height = use === 'whole' ? h : clamp(Math.round(width / ASPECT[use]), 1, h);
  return { left: clamp(Math.round(box.x * w), 0, w - width), top: clamp(Math.round(box.y * h), 0, h - height), width, height };
}

/** The widths that a use is made in: those of its ladder that need no enlarging, and its own where it is between two. */
export function widthsOf(use: PictureUse, framing: Framing): number[] {
  const own = pixelsOf(use, framing).width;
  const fit = WIDTHS[use].filter((w) => w < own);
  const most = Math.max(...WIDTHS[use]);
  return [...new Set([...fit, Math.min(own, most)])];
}

/** A use's size in a width. */
export function sizeAt(use: PictureUse, framing: Framing, width: number): Size {
  const crop = pixelsOf(use, framing);
  return { width, height: Math.max(1, Math.round((width * crop.height) / crop.width)) };
}

/** The nearest width that is made; asking for any other makes no new file. */
export function nearestWidth(use: PictureUse, framing: Framing, wanted: number): number {
  const widths = widthsOf(use, framing);
  return widths.find((w) => w >= wanted) ?? (widths.at(-1) as number);
}

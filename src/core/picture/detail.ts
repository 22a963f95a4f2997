/**
 * How much true detail a picture has: the part of its width that would hold everything in it. One that was enlarged before it came
 * has many pixels and little in them; halving and doubling it again loses next to nothing.
 */

/** A picture in greys, row by row, 0 to 255. */
export interface Gray {
  /** one byte a pixel, row by row */
  pixels: Uint8Array;
  width: number;
  height: number;
}

/**
 * What is lost by halving and doubling again, as a part of the squared differences between neighbours, by how often a picture was
 * enlarged: measured on drawings with hard edges that were made smaller and larger again, which do not differ much in it.
 */
const LOST: readonly (readonly [lost: number, times: number])[] = [
  [0.14, 1],
  [0.115, 2],
  [0.078, 3],
  [0.055, 4],
  [0.038, 6],
  [0.025, 8],
];
/** A picture whose neighbours differ less than this on average (squared, of 255) says nothing: fog, a plain ground. */
const FLAT = 0.5;

/** 1 = every pixel counts; 0.25 = a quarter of the width would do. */
export function detailOf(gray: Gray): number {
  const edges = edgesOf(gray);
  if (edges < FLAT) return 1;
  const lost = lossOf(gray) / edges;
  const after = LOST.findIndex(([l]) => l <= lost);
  if (after === 0) return 1;
  const [less, more] = after < 0 ? [LOST.at(-1), LOST.at(-1)] : [LOST[after], LOST[after - 1]];
  if (!less || !more || less === more) return 1 / 8;
  const part = (lost - less[0]) / (more[0] - less[0]);
  return 1 / (less[1] + (more[1] - less[1]) * part);
}

/** Of the differences between neighbours, across and down. What is compared with this depends on how soft edges are, not on how many there are. */
function edgesOf({ pixels, width, height }: Gray): number {
  let sum = 0;
  for (let y = 0; y < height - 1; y++)
    for (let at = y * width, end = at + width - 1; at < end; at++) {
      const across = (pixels[at + 1] as number) - (pixels[at] as number);
      const down = (pixels[at + width] as number) - (pixels[at] as number);
      sum += across * across + down * down;
    }
  return sum / Math.max(1, (width - 1) * (height - 1));
}

/** Mean squared difference to itself at half the size (averages) and large again (bilinear). */
function lossOf({ pixels, width, height }: Gray): number {
  const step = 2;
  const w = Math.floor(width / step);
  const h = Math.floor(height / step);
  if (w < 4 || h < 4) return Number.POSITIVE_INFINITY;
  const small = new Float32Array(w * h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      let sum = 0;
      for (let dy = 0; dy < step; dy++) for (let dx = 0; dx < step; dx++) sum += pixels[(y * step + dy) * width + x * step + dx] as number;
      small[y * w + x] = sum / (step * step);
    }
  const at = (x: number, y: number): number => small[y * w + x] as number;
  let lost = 0;
  let count = 0;
  for (let y = step; y < (h - 1) * step; y++) {
    const fy = (y + 0.5) / step - 0.5;
    const y0 = Math.floor(fy);
    const ty = fy - y0;
    for (let x = step; x < (w - 1) * step; x++) {
      const fx = (x + 0.5) / step - 0.5;
      const x0 = Math.floor(fx);
      const tx = fx - x0;
      const upper = at(x0, y0) * (1 - tx) + at(x0 + 1, y0) * tx;
      const lower = at(x0, y0 + 1) * (1 - tx) + at(x0 + 1, y0 + 1) * tx;
      const difference = (pixels[y * width + x] as number) - (upper * (1 - ty) + lower * ty);
      lost += difference * difference;
      count++;
    }
  }
  return lost / Math.max(1, count);
}

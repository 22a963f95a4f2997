import { describe, expect, it } from 'vitest';
import { random, seedOf } from '../../../tests/support/generate';
import { detailOf, type Gray } from './detail';

/** A drawing of hard-edged discs. */
function drawing(width: number, height: number, seed: number): Gray {
  const r = random(seed);
  const pixels = new Uint8Array(width * height).fill(200);
  for (let i = 0; i < 40; i++) {
    const [cx, cy, radius, ink] = [r() * width, r() * height, 8 + r() * 60, Math.floor(r() * 256)];
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) if ((x - cx) ** 2 + (y - cy) ** 2 < radius ** 2) pixels[y * width + x] = ink;
  }
  return { pixels, width, height };
}

/** Enlarged with a cubic through the neighbours (Catmull-Rom), as programs for pictures do. */
function enlarged({ pixels, width, height }: Gray, times: number): Gray {
  const weight = (t: number): number => {
    const a = Math.abs(t);
    if (a >= 2) return 0;
    return a < 1 ? 1.5 * a ** 3 - 2.5 * a ** 2 + 1 : -0.5 * a ** 3 + 2.5 * a ** 2 - 4 * a + 2;
  };
  const line = (from: (i: number) => number, length: number, at: number): number => {
    const x = (at + 0.5) / times - 0.5;
    let sum = 0;
    for (let i = Math.floor(x) - 1; i <= Math.floor(x) + 2; i++) sum += weight(x - i) * from(Math.min(Math.max(i, 0), length - 1));
    return sum;
  };
  const [w, h] = [Math.round(width * times), Math.round(height * times)];
  const across = new Float32Array(w * height);
  for (let y = 0; y < height; y++) for (let x = 0; x < w; x++) across[y * w + x] = line((i) => pixels[y * width + i] as number, width, x);
  const out = new Uint8Array(w * h);
  for (let x = 0; x < w; x++)
    for (let y = 0; y < h; y++)
      out[y * w + x] = Math.min(255, Math.max(0, Math.round(line((i) => across[i * w + x] as number, height, y))));
  return { pixels: out, width: w, height: h };
}

describe('the detail of a picture', () => {
  it('is whole where edges are hard, and less the more it was enlarged', () => {
    for (const seed of [seedOf(), seedOf() + 1]) {
      const small = drawing(220, 160, seed);
      expect(detailOf(small)).toBe(1);
      const found = [2, 3, 4, 6].map((times) => detailOf(enlarged(small, times)));
      expect(found[2]).toBeLessThan(found[0] as number);
      expect(found[3]).toBeLessThan(found[1] as number);
      // Never taken for a sharp one, never thought worse than twice what it is.
      for (const [i, times] of [2, 3, 4, 6].entries()) {
        expect(found[i], `${times} times`).toBeLessThan(0.75);
        expect(found[i], `${times} times`).toBeGreaterThan(0.5 / times);
      }
    }
  });

  it('is not doubted where there is nothing to see: fog, a plain ground, a few pixels, grain', () => {
    const plain = new Uint8Array(100 * 100).fill(120);
    expect(detailOf({ pixels: plain, width: 100, height: 100 })).toBe(1);
    expect(detailOf({ pixels: plain.map((p, i) => p + Math.floor((i % 100) / 50)), width: 100, height: 100 })).toBe(1);
    expect(detailOf({ pixels: Uint8Array.from([0, 255, 0, 255]), width: 2, height: 2 })).toBe(1);
    const r = random(seedOf());
    const grain = new Uint8Array(200 * 200).map(() => 60 + Math.floor(r() * 120));
    expect(detailOf({ pixels: grain, width: 200, height: 200 })).toBe(1);
  });
});

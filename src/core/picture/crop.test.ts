import { describe, expect, it } from 'vitest';
import { between, pick, random, seedOf } from '../../../tests/support/generate';
import { pictureAddress, picturesInText, readFileName } from './picture-url';
import { ASPECT, boxOf, CROPPED, type Framing, MIDDLE, nearestWidth, NO_CROPS, pixelsOf, sizeAt, USES, widthsOf } from './crop';

const framing = (width: number, height: number, part: Partial<Framing> = {}): Framing => ({
  width,
  height,
  focus: MIDDLE,
  crops: NO_CROPS,
  ...part,
});

describe('what a use shows of a picture', () => {
  it('is the largest part of its aspect around the focal point', () => {
    // 2,000 x 1,000: a square is 1,000 wide, its middle a quarter from the left.
    expect(pixelsOf('square', framing(2000, 1000, { focus: { x: 0.25, y: 0.5 } }))).toEqual({
      left: 0,
      top: 0,
      width: 1000,
      height: 1000,
    });
    expect(pixelsOf('square', framing(2000, 1000, { focus: { x: 0.6, y: 0.9 } }))).toMatchObject({ left: 700, width: 1000 });
    expect(pixelsOf('wide', framing(1000, 2000, { focus: { x: 0.5, y: 1 } }))).toEqual({ left: 0, top: 1437, width: 1000, height: 563 });
    expect(pixelsOf('whole', framing(2000, 1000, { focus: { x: 0, y: 0 } }))).toEqual({ left: 0, top: 0, width: 2000, height: 1000 });
  });

  it('stays inside, true to its aspect, and keeps the point in sight, whatever the picture and whoever set it by hand', () => {
    const r = random(seedOf());
    for (let i = 0; i < 3000; i++) {
      const size = framing(between(r, 1, 2400), between(r, 1, 2400), { focus: { x: r(), y: r() } });
      const use = pick(r, CROPPED);
      const byHand = r() < 0.5;
      if (byHand) size.crops = { format: 1, [use]: { x: r() * 2 - 0.5, y: r() * 2 - 0.5, w: r() * 2, h: r() * 2 } };
      const { left, top, width, height } = pixelsOf(use, size);
      const said = JSON.stringify({ use, ...size });
      expect(left >= 0 && top >= 0 && width >= 1 && height >= 1, said).toBe(true);
      expect(left + width <= size.width && top + height <= size.height, said).toBe(true);
      // To a pixel in either direction; a picture of a few pixels has no better.
      expect(Math.abs(width - height * ASPECT[use]) <= 1.5 * Math.max(1, ASPECT[use]) || width === 1 || height === 1, said).toBe(true);
      if (byHand) continue;
      const box = boxOf(use, size);
      expect(size.focus.x >= box.x - 1e-9 && size.focus.x <= box.x + box.w + 1e-9, said).toBe(true);
      expect(size.focus.y >= box.y - 1e-9 && size.focus.y <= box.y + box.h + 1e-9, said).toBe(true);
      // The largest: one side of it is the picture's own.
      expect(box.w > 1 - 1e-9 || box.h > 1 - 1e-9, said).toBe(true);
    }
  });

  it('is never enlarged, and made in the widths of its ladder', () => {
    expect(widthsOf('wide', framing(2400, 1600))).toEqual([320, 640, 1024, 1600]);
    expect(widthsOf('wide', framing(900, 600))).toEqual([320, 640, 900]);
    expect(widthsOf('wide', framing(640, 640))).toEqual([320, 640]);
    expect(widthsOf('square', framing(100, 200))).toEqual([100]);
    expect(widthsOf('share', framing(2400, 2400))).toEqual([1200]);
    expect(nearestWidth('wide', framing(900, 600), 700)).toBe(900);
    expect(nearestWidth('wide', framing(900, 600), 5000)).toBe(900);
    expect(nearestWidth('square', framing(900, 600), 1)).toBe(160);
    expect(sizeAt('wide', framing(2400, 1600), 1600)).toEqual({ width: 1600, height: 900 });
    for (const use of USES) for (const width of widthsOf(use, framing(37, 11))) expect(width).toBeLessThanOrEqual(37);
  });
});

describe('addresses of pictures', () => {
  it('are read as they are written, and nothing else is', () => {
    const id = '0190a1b2-0000-7000-8000-000000000001';
    for (const use of USES) {
      const name = { use, width: 640, format: 'jpeg' as const };
      expect(readFileName(pictureAddress({ id, version: 3 }, name).split('/').at(-1) as string)).toEqual(name);
    }
    for (const wrong of ['', 'wide', 'wide-640', 'wide-640.exe', 'tall-640.webp', 'wide-0.webp', 'wide-999999.webp', '../wide-640.webp'])
      expect(readFileName(wrong), wrong).toBeUndefined();
    const text = `<p>a</p><img src="/picture/${id}/640" alt=""><img src="/picture/${id}/320">`;
    expect(picturesInText(text)).toEqual([id]);
    expect(picturesInText('<p>/picture/none</p>')).toEqual([]);
  });
});

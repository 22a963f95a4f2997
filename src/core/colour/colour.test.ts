import { describe, expect, it } from 'vitest';
import { between, random, seedOf } from '../../../tests/support/generate';
import { contrast, fromOklch, inksOf, isReadable, readableInk, tint, toOklch } from './colour';
import { PALETTE, pathOf, SHAPES } from './mark';

const hex = (r: () => number): string => `#${between(r, 0, 0xffffff).toString(16).padStart(6, '0')}`;

describe('inks', () => {
  it('contrast is WCAG’s', () => {
    expect(contrast('#000000', '#ffffff')).toBeCloseTo(21, 5);
    expect(contrast('#777777', '#ffffff')).toBeCloseTo(4.478, 2);
  });
  it(`every colour becomes readable on light and dark, moving lightness alone, seed ${seedOf()}`, () => {
    const r = random(seedOf());
    let changed = 0;
    for (let i = 0; i < 3000; i++) {
      const ink = hex(r);
      for (const theme of ['light', 'dark'] as const) {
        const fixed = readableInk(ink, theme);
        expect(isReadable(fixed, theme), `${ink} ${theme} ${fixed}`).toBe(true);
        if (fixed !== ink) changed++;
        const [before, after] = [toOklch(ink), toOklch(fixed)];
        // Hue is kept where there is colour enough to have one.
        if (before.c > 0.05 && after.c > 0.05) expect(Math.abs(((after.h - before.h + 540) % 360) - 180)).toBeLessThan(4);
      }
    }
    expect(changed).toBeGreaterThan(1000);
  });
  it('a readable one is left alone, a mended one goes no further than it must', () => {
    expect(readableInk('#0C5A63', 'light')).toBe('#0c5a63');
    expect(contrast(readableInk('#ffe000', 'light'), '#ffffff')).toBeLessThan(4.7);
  });
  it('OKLCH goes there and back', () => {
    const r = random(3);
    for (let i = 0; i < 500; i++) {
      const ink = hex(r);
      expect(fromOklch(toOklch(ink))).toBe(ink);
    }
    expect(toOklch('#ff0000').l).toBeCloseTo(0.628, 3);
  });
  it('the whole palette and its tints can be read in both themes', () => {
    for (const { ink } of PALETTE) {
      for (const one of [ink, tint(ink, 0), tint(ink, 3)]) {
        const { light, dark } = inksOf(one);
        expect([isReadable(light, 'light'), isReadable(dark, 'dark')]).toEqual([true, true]);
      }
    }
    expect(PALETTE).toHaveLength(12);
  });
  it('has ten shapes, each with a path of its own', () => expect(new Set(SHAPES.map(pathOf)).size).toBe(10));
});

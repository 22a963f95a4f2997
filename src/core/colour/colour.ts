/**
 * Inks that stay readable. Colours are sRGB hex (#rrggbb); OKLCH after Björn Ottosson, "A perceptual color space for
 * image processing" (2020); contrast after WCAG 2.2 "relative luminance" and "contrast ratio" (1 to 21).
 */

/** A colour in OKLCH: lightness 0 to 1, chroma, hue in degrees (Ottosson 2020). */
export interface Oklch {
  /** 0-1 */
  l: number;
  /** 0 to about 0.37 in sRGB */
  c: number;
  /** degrees */
  h: number;
}

/** The surfaces an ink must be read on, from the look's tokens. */
export const SURFACES = {
  light: { sheet: '#ffffff', ground: '#eef1ee' },
  dark: { sheet: '#192127', ground: '#12181d' },
} as const;

/** What a mark's ink must reach: text on the sheet, graphics on the ground. */
export const ON_SHEET = 4.5;
/** The least contrast of a mark's ink on its ground, by WCAG 2.2 (1.4.11). */
export const ON_GROUND = 3;

/** Is this a colour written `#rrggbb`? */
export function isHex(text: string): boolean {
  return /^#[0-9a-f]{6}$/i.test(text);
}

type Rgb = [number, number, number];

function linearOf(hex: string): Rgb {
  const n = Number.parseInt(hex.slice(1), 16);
  return [n >> 16, (n >> 8) & 255, n & 255].map((v) => {
    const s = v / 255;
    return s <= 0.04045 ? s / 12.92 : ((s + 0.055) / 1.055) ** 2.4;
  }) as Rgb;
}

function hexOf(linear: Rgb): string {
  const channel = (v: number): string => {
    const s = v <= 0.0031308 ? v * 12.92 : 1.055 * v ** (1 / 2.4) - 0.055;
    return Math.round(Math.min(1, Math.max(0, s)) * 255)
      .toString(16)
      .padStart(2, '0');
  };
  return `#${linear.map(channel).join('')}`;
}

/** Relative luminance, 0 to 1, of a colour written `#rrggbb` (WCAG 2.2). */
export function luminance(hex: string): number {
  const [r, g, b] = linearOf(hex);
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}

/** WCAG contrast ratio of two colours, 1 to 21. */
export function contrast(a: string, b: string): number {
  const [x, y] = [luminance(a), luminance(b)];
  return (Math.max(x, y) + 0.05) / (Math.min(x, y) + 0.05);
}

/** A colour written `#rrggbb` in OKLCH: lightness 0 to 1, chroma, hue in degrees (Ottosson 2020). */
export function toOklch(hex: string): Oklch {
  const [r, g, b] = linearOf(hex);
  const l = Math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b);
  const m = Math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b);
  const s = Math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b);
  const a = 1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s;
  const bb = 0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s;
  return {
    l: 0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s,
    c: Math.hypot(a, bb),
    h: (Math.atan2(bb, a) * 180) / Math.PI,
  };
}

function linearFrom({ l, c, h }: Oklch): Rgb {
  const a = c * Math.cos((h * Math.PI) / 180);
  const b = c * Math.sin((h * Math.PI) / 180);
  const ll = (l + 0.3963377774 * a + 0.2158037573 * b) ** 3;
  const mm = (l - 0.1055613458 * a - 0.0638541728 * b) ** 3;
  const ss = (l - 0.0894841775 * a - 1.291485548 * b) ** 3;
  return [
    4.0767416621 * ll - 3.3077115913 * mm + 0.2309699292 * ss,
    -1.2684380046 * ll + 2.6097574011 * mm - 0.3413193965 * ss,
    -0.0041960863 * ll - 0.7034186147 * mm + 1.707614701 * ss,
  ];
}

/** The nearest colour of that lightness and hue that sRGB can show: chroma gives way, by bisection. */
export function fromOklch(colour: Oklch): string {
  const inside = (rgb: Rgb): boolean => rgb.every((v) => v >= -1e-4 && v <= 1 + 1e-4);
  if (inside(linearFrom(colour))) return hexOf(linearFrom(colour));
  let low = 0;
  let high = colour.c;
  for (let i = 0; i < 24; i++) {
    const mid = (low + high) / 2;
    if (inside(linearFrom({ ...colour, c: mid }))) low = mid;
    else high = mid;
  }
  return hexOf(linearFrom({ ...colour, c: low }));
}

/** Does an ink meet both limits on a theme's surfaces? */
export function isReadable(ink: string, theme: keyof typeof SURFACES): boolean {
  const { sheet, ground } = SURFACES[theme];
  return contrast(ink, sheet) >= ON_SHEET && contrast(ink, ground) >= ON_GROUND;
}

/**
 * The ink nearest in lightness to the chosen one that can be read on a theme's surfaces. Only lightness is moved
 * (chroma follows where sRGB ends). An ink that is readable already comes back unchanged.
 */
export function readableInk(ink: string, theme: keyof typeof SURFACES): string {
  if (isReadable(ink, theme)) return ink.toLowerCase();
  const chosen = toOklch(ink);
  // Darker on light paper, lighter on dark: the far end (black or white) always reads.
  let far = theme === 'light' ? 0 : 1;
  let near = chosen.l;
  for (let i = 0; i < 24; i++) {
    const mid = (near + far) / 2;
    if (isReadable(fromOklch({ ...chosen, l: mid }), theme)) far = mid;
    else near = mid;
  }
  return fromOklch({ ...chosen, l: far });
}

/** Both inks of a mark. */
export function inksOf(ink: string): { light: string; dark: string } {
  return { light: readableInk(ink, 'light'), dark: readableInk(ink, 'dark') };
}

/** A child category's ink: its parent's hue, lighter by its place among its siblings (0, 1, 2 …). */
export function tint(ink: string, place: number): string {
  const { l, c, h } = toOklch(ink);
  return fromOklch({ l: Math.min(0.9, l + 0.06 * (1 + (place % 4))), c: c * 0.85, h: h + 8 * (1 + (place % 4)) });
}

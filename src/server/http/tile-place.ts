/** The place of a tile in an address. */

/** Its numbers; NaN where the address has none. */
export function tilePlace(params: Readonly<Record<string, string | undefined>>): { z: number; x: number; y: number } {
  const [z = Number.NaN, x = Number.NaN, y = Number.NaN] = [params.z, params.x, params.y].map((text) =>
    /^\d{1,8}$/.test(text ?? '') ? Number(text) : Number.NaN,
  );
  return { z, x, y };
}

/**
 * The text of a file's bytes: UTF-8 or UTF-16 by their marks or, for UTF-16, by the NULs between western letters; UTF-8 where that fits,
 * else the old western code page. NUL, which no database keeps, is left out.
 */

export interface Decoded {
  text: string;
  encoding: 'UTF-8' | 'UTF-16' | 'windows-1252';
}

/** A decoder drops the byte order mark of its own encoding by itself, and makes no halves of characters. */
export function decode(bytes: Uint8Array): Decoded {
  const decoded = (encoding: string, fatal = false): string => new TextDecoder(encoding, { fatal }).decode(bytes).replaceAll('\0', '');
  const wide = wideOf(bytes);
  if (wide) return { text: decoded(wide), encoding: 'UTF-16' };
  try {
    return { text: decoded('utf-8', true), encoding: 'UTF-8' };
  } catch {
    return { text: decoded('windows-1252'), encoding: 'windows-1252' };
  }
}

/** So many bytes show whether every second one is NUL. */
const LOOKED_AT = 200;

function wideOf(bytes: Uint8Array): 'utf-16le' | 'utf-16be' | undefined {
  const [a, b] = bytes;
  if (a === 0xff && b === 0xfe) return 'utf-16le';
  if (a === 0xfe && b === 0xff) return 'utf-16be';
  let [even, odd] = [0, 0];
  const length = Math.min(bytes.length, LOOKED_AT);
  for (let i = 0; i < length; i++) if (bytes[i] === 0) i % 2 ? odd++ : even++;
  return even + odd <= length / 4 ? undefined : odd > even ? 'utf-16le' : 'utf-16be';
}

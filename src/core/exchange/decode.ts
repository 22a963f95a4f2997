/**
 * The text of a file's bytes: UTF-8 or UTF-16 by their marks or, for UTF-16, by the NULs between western letters; UTF-8 where that fits,
 * else the old western code page. NUL and halves of characters, which no database keeps, are left out.
 */

export interface Decoded {
  text: string;
  encoding: 'UTF-8' | 'UTF-16' | 'windows-1252';
}

export function decode(bytes: Uint8Array): Decoded {
  const encoding = encodingOf(bytes);
  const text = new TextDecoder(encoding).decode(bytes).replaceAll('\0', '').toWellFormed();
  return { text, encoding: encoding.startsWith('utf-16') ? 'UTF-16' : encoding === 'utf-8' ? 'UTF-8' : 'windows-1252' };
}

/** So many bytes show whether every second one is NUL. */
const LOOKED_AT = 200;

/** A decoder drops the byte order mark of its own encoding by itself. */
function encodingOf(bytes: Uint8Array): 'utf-8' | 'utf-16le' | 'utf-16be' | 'windows-1252' {
  const [a, b] = bytes;
  if (a === 0xff && b === 0xfe) return 'utf-16le';
  if (a === 0xfe && b === 0xff) return 'utf-16be';
  const nuls = [0, 0];
  const length = Math.min(bytes.length, LOOKED_AT);
  for (let i = 0; i < length; i++) if (bytes[i] === 0) nuls[i % 2] = (nuls[i % 2] ?? 0) + 1;
  const [even = 0, odd = 0] = nuls;
  if (even + odd > length / 4) return odd > even ? 'utf-16le' : 'utf-16be';
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    return 'utf-8';
  } catch {
    return 'windows-1252';
  }
}

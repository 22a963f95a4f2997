/**
 * The text of a file's bytes: UTF-8 or UTF-16 by their marks or, for UTF-16, by the NULs between western letters; UTF-8 where that fits,
 * else the old western code page. NUL, which no database keeps, is left out.
 */

/** A file's text, and by which encoding its bytes were read. */
export interface Decoded {
  text: string;
  encoding: 'UTF-8' | 'UTF-16' | 'windows-1252';
}

/** A decoder drops the byte order mark of its own encoding by itself, and makes no halves of characters. */
export function decode(bytes: Uint8Array): Decoded {
  const decoded = (encoding: string, fatal = false): string => new TextDecoder(encoding, { fatal }).decode(bytes).replaceAll('\0', '');
  const wide = wideOf(bytes);
  if (wide) return { text: decoded(wide), encoding: 'UTF-16' };
  for (const [of, encoding] of [[bytes, 'UTF-8'] as const, [unfoldedInLetters(bytes), 'UTF-8'] as const]) {
    try {
      return { text: new TextDecoder('utf-8', { fatal: true }).decode(of).replaceAll('\0', ''), encoding };
    } catch {
      // The next reading is tried.
    }
  }
  return { text: decoded('windows-1252'), encoding: 'windows-1252' };
}

/** Programs that fold lines by octets cut letters in two: a line end and a space between the bytes of one letter are taken out. */
function unfoldedInLetters(bytes: Uint8Array): Uint8Array {
  const kept = new Uint8Array(bytes.length);
  let n = 0;
  for (let i = 0; i < bytes.length; i++) {
    const end = bytes[i] === 13 && bytes[i + 1] === 10 ? 2 : bytes[i] === 10 ? 1 : 0;
    const space = bytes[i + end] === 32 || bytes[i + end] === 9;
    // Within a letter the byte behind the fold goes on with it.
    if (end && space && ((bytes[i + end + 1] ?? 0) & 0xc0) === 0x80) i += end;
    else kept[n++] = bytes[i] ?? 0;
  }
  return kept.subarray(0, n);
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

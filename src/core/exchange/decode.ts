/** The text of a file's bytes: UTF-8 or UTF-16 by their marks, UTF-8 where that fits, else the old western code page. */

export interface Decoded {
  text: string;
  encoding: 'UTF-8' | 'UTF-16' | 'windows-1252';
}

export function decode(bytes: Uint8Array): Decoded {
  const [a, b] = bytes;
  if (a === 0xff && b === 0xfe) return { text: new TextDecoder('utf-16le').decode(bytes), encoding: 'UTF-16' };
  if (a === 0xfe && b === 0xff) return { text: new TextDecoder('utf-16be').decode(bytes), encoding: 'UTF-16' };
  try {
    // The decoder drops a byte order mark by itself.
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), encoding: 'UTF-8' };
  } catch {
    return { text: new TextDecoder('windows-1252').decode(bytes), encoding: 'windows-1252' };
  }
}

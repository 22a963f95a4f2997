/** Which letters a text has, as bits: a quick look that spares comparing most of many words letter by letter. */

/** One bit for each letter that is there (some share one): two texts a slip apart differ in two bits at most. */
export function lettersOf(text: string): number {
  let bits = 0;
  for (let i = 0; i < text.length; i++) bits |= 1 << (text.charCodeAt(i) % 31);
  return bits;
}

/** How many bits of 32 are set. */
export function bitsIn(n: number): number {
  let bits = n - ((n >>> 1) & 0x55555555);
  bits = (bits & 0x33333333) + ((bits >>> 2) & 0x33333333);
  return (((bits + (bits >>> 4)) & 0x0f0f0f0f) * 0x01010101) >>> 24;
}

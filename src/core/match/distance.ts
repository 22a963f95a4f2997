/**
 * How many slips of the hand lie between two words: letters put in, left out, exchanged, or two neighbours swapped
 * (optimal string alignment, the restricted form of Damerau-Levenshtein). Counted in UTF-16 units of folded words.
 */

/** The distance of two words, or `most + 1` as soon as it is known to be more than `most`. Cost: a.length × (2·most + 1). */
export function slipsBetween(a: string, b: string, most: number): number {
  if (a === b) return 0;
  if (Math.abs(a.length - b.length) > most) return most + 1;
  const width = b.length + 1;
  let before = new Array<number>(width).fill(most + 1);
  let last = Array.from({ length: width }, (_, j) => j);
  for (let i = 1; i <= a.length; i++) {
    const row = new Array<number>(width).fill(most + 1);
    row[0] = i;
    let least = i;
    // Outside of this band the distance is more than `most` already.
    for (let j = Math.max(1, i - most); j <= Math.min(b.length, i + most); j++) {
      const cost = a[i - 1] === b[j - 1] ? 0 : 1;
      let slips = Math.min((last[j] ?? 0) + 1, (row[j - 1] ?? 0) + 1, (last[j - 1] ?? 0) + cost);
      const swapped = i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1];
      if (swapped) slips = Math.min(slips, (before[j - 2] ?? 0) + 1);
      row[j] = slips;
      if (slips < least) least = slips;
    }
    if (least > most) return most + 1;
    before = last;
    last = row;
  }
  return Math.min(last[b.length] ?? 0, most + 1);
}

/** So many slips may a word of this length have and still be taken for another: none in short words, where each letter tells. */
export function slipsAllowed(length: number): number {
  if (length < 4) return 0;
  return length < 8 ? 1 : 2;
}

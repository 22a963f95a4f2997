/** What Proof says, as codes with what they name. The words are the catalogue's (`src/words/en/desk-proof.json`); `words/proof.ts` says them. */

type Nothing = Record<string, never>;

/** Each sentence of Proof and of its mends, with what it takes. */
export interface Sentences {
  amountUnreadable: Nothing;
  makeItFree: Nothing;
  freeUnset: Nothing;
  costMissing: Nothing;
  freeButPriced: { cost: string | number; field: string };
  pricedButFree: { field: string; money: string | number };
  pricesDiffer: { cost: string | number; field: string; money: string | number };
  wordsOpen: { words: string | number };
  noDateYet: Nothing;
  endNextDay: Nothing;
  endsBeforeStart: Nothing;
  never: Nothing;
  limitBeforeStart: Nothing;
  noDates: Nothing;
  turnItAround: Nothing;
  breakReversed: Nothing;
  beginOn: { fits: string | number };
  startNotInRule: { fits: string | number };
  startInGap: { minutes: string | number };
  noSun: { n: number; days: string | number };
  sunAfterEnd: { n: number; days: string | number };
  datesInGap: { days: string | number };
  nextDate: { day: string | number };
  beyondHorizon: Nothing;
  allPast: Nothing;
  makeItTime: { time: string | number };
  oddHour: { time: string | number };
  short: { minutes: number };
  endAt: { time: string | number };
  lateEnd: { time: string | number };
  long: { hours: string | number };
  maybeDaily: { first: string | number; from: string | number; last: string | number; to: string | number };
  makeItEachDay: { from: string | number; to: string | number };
  endless: Nothing;
  letItEndOn: { day: string | number };
  linkDead: { link: string | number; why: string };
  mailUnreadable: Nothing;
  addressUnsafe: { field: string };
  addressDead: { field: string; why: string };
  weekdayDiffers: { day: string | number; field: string; weekday: string | number; words: string | number };
  dateDiffers: { field: string; words: string | number };
  yearDiffers: { field: string; year: string | number; years: string | number };
  venueClash: { at: string | number; more: number; title: string | number };
  organizerClash: { at: string | number; more: number; organizer: string | number; title: string | number };
  lookalike: { places: string; times: string; title: string | number; titles: string };
  sameTitle: Nothing;
  holiday: { day: string | number; names: string | number };
  copyWhen: Nothing;
  copyTitle: Nothing;
  copyLink: { link: string | number; title: string | number };
  categoryMissing: Nothing;
  lowContrast: { name: string | number };
  pictureMissingHeadline: Nothing;
  pictureMissingLine: Nothing;
  pictureMissing: Nothing;
  altMissing: { n: string | number };
  pictureSmall: { height: string | number; width: string | number };
  pictureEnlarged: { held: string | number; width: string | number };
  onlineAddressMissing: Nothing;
  venueMissing: Nothing;
  organizerMissing: Nothing;
  inTheBin: { name: string | number };
  takeItOff: Nothing;
  accessMissing: Nothing;
  venueUnplaced: { name: string | number };
  roomSmall: { capacity: string | number; expected: string | number; name: string | number };
  venueClosed: { days: string | number; more: number; name: string | number; partly: string };
  venueOpen: { name: string | number };
  titleMissing: Nothing;
  titleCapitals: Nothing;
  writeTitle: { title: string | number };
  titleCopy: Nothing;
  makeItTitle: { title: string | number };
  titleLong: { lines: string | number; most: string | number; title: string | number };
  titleFits: Nothing;
  nothingToRead: Nothing;
  firstSentence: Nothing;
  summaryMissing: Nothing;
  cutAtWord: Nothing;
  summaryLong: { has: string | number; most: string | number };
  takeSpacesOut: Nothing;
  spaces: Nothing;
  dateUnknown: { text: string | number };
  tooDense: { most: string | number };
  tooMuch: Nothing;
  makeIt: { text: string | number };
  weekdaysDiffer: { field: string; weekdays: string | number; words: string | number };
  dateDiffersNearest: { day: string | number; field: string; words: string | number };
  write: { text: string | number };
  altMissingCover: Nothing;
  altMissingOther: Nothing;
}

/** A sentence as a code, with what it names: can be stored, sent, and said in any language. */
export interface Saying {
  code: keyof Sentences;
  with: Record<string, string | number>;
}

/** A sentence and what it names, as the sentence asks for it. */
export function says<K extends keyof Sentences>(code: K, ...[given]: Sentences[K] extends Nothing ? [] : [Sentences[K]]): Saying {
  return { code, with: given ?? {} };
}

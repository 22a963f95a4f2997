/** Checks that venues and organizers share. */
import { z } from 'zod';
import { isMail, isWebAddress, readWebAddress } from '@/core/validation/links';
import { serverWords } from '@/words/desk';

const w = serverWords.placesInput;

/** Text of at most so many characters, its blanks tidied. */
export const words = (most: number) =>
  z
    .string()
    .trim()
    .max(most, w.atMostCharacters({ most: most.toLocaleString('en') }))
    .default('');
/** The name of a place: it has one. */
export const placeName = z.string({ error: w.theNameIsMissing() }).trim().min(1, w.theNameIsMissing()).max(120, w.theNameHasAt());
/** A website as people type it: "www.shore.example" gets its https://. */
export const optionalWeb = words(500)
  .transform((text) => (text ? (readWebAddress(text) ?? text) : ''))
  .refine((text) => !text || isWebAddress(text), { error: w.aWebsiteIsWritten() });
/** A mail address, or nothing. */
export const optionalMail = words(200).refine((text) => !text || isMail(text), {
  error: w.aMailAddressNeeds(),
});
/** A whole number within bounds, or nothing. */
export const optionalNumber = (most: number, what: string) =>
  z.preprocess(
    (value) => (value === '' || value === undefined || value === null ? null : Number(value)),
    z
      .number({ error: w.isAWholeNumber({ what }) })
      .int(w.isAWholeNumber({ what }))
      .min(0, w.isAtLeast0({ what }))
      .max(most, w.isAtMost({ what, most: most.toLocaleString('en') }))
      .nullable(),
  );
/** An id, or nothing. */
export const optionalId = z.preprocess((value) => value || null, z.uuid({ error: w.thatIsGoneChoose() }).nullable()).default(null);
/** A tick of a form. */
export const tick = z.preprocess((value) => value === true || value === 'on' || value === '1', z.boolean()).default(false);

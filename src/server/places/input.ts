/** Checks that venues and organizers share. */
import { z } from 'zod';
import { isMail, isWebAddress, readWebAddress } from '@/core/validation/links';

/** Text of at most so many characters, its blanks tidied. */
export const words = (most: number) =>
  z
    .string()
    .trim()
    .max(most, `At most ${most.toLocaleString('en')} characters`)
    .default('');
/** The name of a place: it has one. */
export const placeName = z
  .string({ error: 'The name is missing' })
  .trim()
  .min(1, 'The name is missing')
  .max(120, 'The name has at most 120 characters');
/** A website as people type it: "www.shore.example" gets its https://. */
export const optionalWeb = words(500)
  .transform((text) => (text ? (readWebAddress(text) ?? text) : ''))
  .refine((text) => !text || isWebAddress(text), { error: 'A website is written www.shore.example or https://shore.example/choir' });
/** A mail address, or nothing. */
export const optionalMail = words(200).refine((text) => !text || isMail(text), {
  error: 'A mail address needs a name, an @ and a domain',
});
/** A whole number within bounds, or nothing. */
export const optionalNumber = (most: number, what: string) =>
  z.preprocess(
    (value) => (value === '' || value === undefined || value === null ? null : Number(value)),
    z
      .number({ error: `${what} is a whole number` })
      .int(`${what} is a whole number`)
      .min(0, `${what} is at least 0`)
      .max(most, `${what} is at most ${most.toLocaleString('en')}`)
      .nullable(),
  );
/** An id, or nothing. */
export const optionalId = z
  .preprocess((value) => value || null, z.uuid({ error: 'That is gone; choose another' }).nullable())
  .default(null);
/** A tick of a form. */
export const tick = z.preprocess((value) => value === true || value === 'on' || value === '1', z.boolean()).default(false);

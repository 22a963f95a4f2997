/** Organizers: made, changed, binned and removed. */
import { eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { isWebAddress, readWebAddress } from '@/core/validation/links';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { newId } from '../db/ids';
import { category, organizer, picture } from '../db/schema';
import { invalid, notFound } from '../problem';
import { freePlaceSlug, note } from '../places/slugs';
import { optionalId, optionalMail, optionalWeb, placeName, words } from '../places/input';
import type { Change } from '../listings/write';
import { type Gone, takeOut } from '../places/removed';
import { validateAgain } from '../validation/due';
import { serverWords } from '@/words/desk';

const w = serverWords.organizersWrite;

const profile = z.object({
  label: z.string().trim().min(1, w.sayWhatItIs()).max(60, w.atMost60Characters()),
  address: z
    .string()
    .trim()
    .max(500, w.atMost500Characters())
    .transform((text) => readWebAddress(text) ?? text)
    .refine(isWebAddress, { error: w.anAddressIsWritten() }),
});

/** What may come in as an organizer. */
export const organizerInput = z.object({
  name: placeName,
  text: words(2000),
  phone: words(60),
  mail: optionalMail,
  website: optionalWeb,
  profiles: z.object({ format: z.literal(1), list: z.array(profile).max(30, w.atMost30Profiles()) }).default({ format: 1, list: [] }),
  pictureId: optionalId,
  categoryId: optionalId,
  contactName: words(120),
  contactPhone: words(60),
  contactMail: optionalMail,
  notes: words(2000),
});
/** An organizer, checked. */
export type OrganizerInput = z.infer<typeof organizerInput>;

/** An organizer of whom nothing is said. */
export const BLANK_ORGANIZER: OrganizerInput = {
  name: '',
  text: '',
  phone: '',
  mail: '',
  website: '',
  profiles: { format: 1, list: [] },
  pictureId: null,
  categoryId: null,
  contactName: '',
  contactPhone: '',
  contactMail: '',
  notes: '',
};

async function check(tx: Db, { pictureId, categoryId }: OrganizerInput): Promise<void> {
  const [there] = pictureId ? await tx.select({ id: picture.id }).from(picture).where(eq(picture.id, pictureId)) : [true];
  if (!there) throw invalid('pictureId', w.thatPictureIsGone());
  const [kind] = categoryId ? await tx.select({ id: category.id }).from(category).where(eq(category.id, categoryId)) : [true];
  if (!kind) throw invalid('categoryId', w.thatCategoryIsGone());
}

/** Makes an organizer, or changes them. Throws a Problem at the field that is wrong. */
export async function saveOrganizer(tx: Db, id: string | null, input: OrganizerInput, by: Actor): Promise<{ id: string; name: string }> {
  await check(tx, input);
  if (id) {
    const [row] = await tx
      .update(organizer)
      .set({ ...input, revision: sql`${organizer.revision} + 1` })
      .where(eq(organizer.id, id))
      .returning({ id: organizer.id });
    if (!row) throw notFound('organizer');
  } else {
    id = newId();
    await tx.insert(organizer).values({ id, ...input, slug: await freePlaceSlug(tx, 'organizer', input.name) });
  }
  await validateAgain(tx, 'organizerId', id);
  await note(tx, 'organizer', id, { code: 'saved' }, by);
  return { id, name: input.name };
}

/** Out of sight; listings that name it keep it. `at` null takes it back. */
export async function binOrganizer(tx: Db, id: string, at: Date | null, by: Actor): Promise<{ name: string }> {
  const [row] = await tx.update(organizer).set({ binnedAt: at }).where(eq(organizer.id, id)).returning({ name: organizer.name });
  if (!row) throw notFound('organizer');
  await validateAgain(tx, 'organizerId', id);
  await note(tx, 'organizer', id, { code: at ? 'binned' : 'outOfBin' }, by);
  return row;
}

/** Removes an organizer; listings go to `moveTo`, or have none when that is null. Brought back as one for as long as the bin keeps. */
export async function removeOrganizer(tx: Db, id: string, moveTo: string | null, change: Change): Promise<Gone> {
  const [row] = await tx.select().from(organizer).where(eq(organizer.id, id)).for('update');
  if (!row) throw notFound('organizer');
  const { id: key, name } = organizer;
  const [to] = moveTo && moveTo !== id ? await tx.select({ id: key, name }).from(organizer).where(eq(key, moveTo)) : [];
  if (moveTo && !to) throw invalid('moveTo', w.chooseAnotherOrganizerOr());
  return takeOut(tx, { kind: 'organizer', row, to: to ?? null, merged: false }, change);
}

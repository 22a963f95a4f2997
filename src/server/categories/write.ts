/** Categories: a tree of two levels, each with a mark. One is the fallback and stays. */
import { eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { isHex } from '@/core/colour/colour';
import { ICONS } from '@/core/colour/icons';
import { PALETTE, type Shape, SHAPES } from '@/core/colour/mark';
import { fold, freeSlug, slugOf } from '@/core/text/text';
import type { Db } from '../db/client';
import { newId } from '../db/ids';
import { category, organizer } from '../db/schema';
import { invalid, notFound, Problem } from '../problem';
import { audited } from '../accounts/audit';
import type { Actor } from '../accounts/roles';
import { tick, words } from '../places/input';
import { validateAgain } from '../validation/due';
import type { Change } from '../listings/write';
import { type Gone, takeOut } from '../places/removed';
import { serverWords } from '@/words/desk';

const w = serverWords.categoriesWrite;

/** What may come in as a category. */
export const categoryInput = z.object({
  name: z.string().trim().min(1, w.theNameIsMissing()).max(60, w.theNameHasAt()),
  shape: z.enum(SHAPES, { error: w.chooseOneOfThe() }),
  text: words(400),
  icon: z
    .string()
    .default('')
    .refine((name) => name === '' || Object.hasOwn(ICONS, name), { error: w.chooseOneOfTheDrawings() }),
  pictureId: z.preprocess((value) => value || null, z.uuid(w.chooseAPictureFrom()).nullable()),
  /** may be empty for one that stands under another and is tinted */
  ink: z.string().refine((ink) => ink === '' || isHex(ink), { error: w.anInkIsWritten() }),
  parentId: z.preprocess((value) => value || null, z.uuid().nullable()),
  /** under another: a tint of that one's ink */
  tinted: z.preprocess((value) => value === true || value === '1', z.boolean()).optional(),
  /** there is to be another of the same name */
  twice: tick,
});
type Checked = z.infer<typeof categoryInput>;
/** What a category is; what it need not have may be left out. */
type Optional = 'text' | 'icon' | 'pictureId' | 'tinted' | 'twice';
/** A category as it comes in; what is not said has a usual value. */
export type CategoryInput = Omit<Checked, Optional> & Partial<Pick<Checked, Optional>>;

/** A name that differs from another's in its letters' case or marks alone is asked about: readers could not tell the two apart. */
async function askAboutSameName(tx: Db, id: string | null, { name, twice }: CategoryInput): Promise<void> {
  if (twice) return;
  const rows = await tx.select({ id: category.id, name: category.name }).from(category);
  const same = rows.find((row) => row.id !== id && fold(row.name) === fold(name));
  // One that had its name before is not asked again.
  const before = rows.find((row) => row.id === id);
  if (before && fold(before.name) === fold(name)) return;
  if (same) throw invalid('name', w.thereIsAlreadyUse({ name: same.name }));
}

async function takenSlugs(tx: Db, id: string | null): Promise<Set<string>> {
  const rows = await tx.select({ id: category.id, slug: category.slug }).from(category);
  return new Set(rows.filter((r) => r.id !== id).map((r) => r.slug));
}

/** Makes a category, or changes it. The answer is its id. Throws a Problem at the field that is wrong. */
export async function saveCategory(tx: Db, id: string | null, input: CategoryInput, by: Actor): Promise<string> {
  const { twice: _, ...given } = input;
  const own = { ...given, tinted: input.tinted ?? input.ink === '' };
  let { shape, ink } = input;
  await askAboutSameName(tx, id, input);
  if (input.parentId) {
    if (input.parentId === id) throw invalid('parentId', w.aCategoryCannotStand());
    const [parent] = await tx.select().from(category).where(eq(category.id, input.parentId));
    if (!parent) throw notFound('category');
    if (parent.parentId) throw invalid('parentId', w.standsUnderAnotherAlready({ name: parent.name }));
    const [child] = id ? await tx.select({ id: category.id }).from(category).where(eq(category.parentId, id)).limit(1) : [];
    if (child) throw invalid('parentId', w.itHasCategoriesUnder());
    // A child is known by its parent's shape, and by a tint of its ink unless somebody chose another.
    shape = parent.shape;
    if (!ink) ink = parent.ink;
  } else if (!ink) throw invalid('ink', w.chooseAnInk());
  if (id) {
    const [row] = await tx
      .update(category)
      .set({ ...own, shape, ink, revision: sql`${category.revision} + 1` })
      .where(eq(category.id, id))
      .returning({ id: category.id });
    if (!row) throw notFound('category');
    await tx.update(category).set({ shape }).where(eq(category.parentId, id));
    // Its ink and its picture are Proof's matter in each of its listings.
    await validateAgain(tx, 'categoryId', id);
  } else {
    const [last] = await tx.select({ n: sql<number>`coalesce(max(${category.position}), 0)::int` }).from(category);
    const [any] = await tx.select({ id: category.id }).from(category).where(eq(category.fallback, true));
    const slug = freeSlug(slugOf(input.name, 'category'), await takenSlugs(tx, null));
    id = newId();
    await tx.insert(category).values({ id, ...own, shape, ink, slug, position: (last?.n ?? 0) + 1, fallback: !any && !input.parentId });
  }
  await audited(tx, by, { kind: 'category', id, what: { code: 'saved' } });
  return id;
}

/** A category of which only the name is known: at the top, told apart by the shape and the ink that are used least. */
export async function makeCategoryNamed(tx: Db, name: string, by: Actor): Promise<{ id: string; shape: Shape; ink: string }> {
  const rows = await tx.select({ shape: category.shape, ink: category.ink }).from(category);
  const shape = rarest(
    SHAPES,
    rows.map((row) => row.shape as Shape),
  );
  const ink = rarest(
    PALETTE.map((p) => p.ink),
    rows.map((row) => row.ink),
  );
  return { id: await saveCategory(tx, null, { name, shape, ink, parentId: null }, by), shape, ink };
}

function rarest<T>(all: readonly T[], used: readonly T[]): T {
  const count = (one: T): number => used.filter((other) => other === one).length;
  return [...all].sort((a, b) => count(a) - count(b))[0] as T;
}

/** From now on this category takes what has none. */
export async function makeFallback(tx: Db, id: string): Promise<void> {
  await tx.update(category).set({ fallback: false }).where(eq(category.fallback, true));
  const [row] = await tx.update(category).set({ fallback: true }).where(eq(category.id, id)).returning({ id: category.id });
  if (!row) throw notFound('category');
}

/** Removes a category; what used it goes to `moveTo`. The fallback, and one with others under it, stay. */
export async function removeCategory(tx: Db, id: string, moveTo: string | null, change: Change): Promise<Gone> {
  const [row] = await tx.select().from(category).where(eq(category.id, id)).for('update');
  if (!row) throw notFound('category');
  if (row.fallback) throw new Problem('conflict', w.isTheFallbackListings({ name: row.name }));
  const [child] = await tx.select({ name: category.name }).from(category).where(eq(category.parentId, id)).limit(1);
  if (child) throw new Problem('conflict', w.standsUnderItMove({ name: child.name }));
  const { id: key, name } = category;
  const [to] = await tx
    .select({ id: key, name })
    .from(category)
    .where(moveTo && moveTo !== id ? eq(key, moveTo) : eq(category.fallback, true));
  if (!to) throw moveTo ? invalid('moveTo', w.chooseAnotherCategory()) : new Problem('conflict', w.thereIsNoFallback());
  // Organizers whose new listings begin with it lose that by the database; they have it again when it is brought back.
  const begin = await tx.select({ id: organizer.id }).from(organizer).where(eq(organizer.categoryId, id));
  // Published ones without a category of their own stand under the fallback, and never under this one: it cannot be removed.
  return takeOut(tx, { kind: 'category', row, to, pointed: begin.map((o) => o.id), merged: false }, change);
}

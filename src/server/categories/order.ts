/** The order of all categories, and who stands under whom. */
import { eq } from 'drizzle-orm';
import type { TreeItem } from '@/core/category/tree';
import { audited } from '../accounts/audit';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { category } from '../db/schema';
import { invalid, Problem } from '../problem';
import { serverWords } from '@/words/desk';

const w = serverWords.categoriesOrder;

/** All of them at once: an order that leaves one out, because somebody made it meanwhile, is refused. A child takes its parent's shape. */
export async function orderCategories(tx: Db, order: readonly TreeItem[], by: Actor): Promise<void> {
  const rows = new Map((await tx.select().from(category).for('update')).map((row) => [row.id, row]));
  if (order.length !== rows.size || new Set(order.map((o) => o.id)).size !== rows.size || !order.every((o) => rows.has(o.id)))
    throw new Problem('conflict', w.somebodyAddedOrRemoved());
  const parents = new Map(order.map((o) => [o.id, o.parentId]));
  for (const [position, { id, parentId }] of order.entries()) {
    if (parentId === id) throw invalid('order', w.aCategoryCannotStand());
    if (parentId && (!parents.has(parentId) || parents.get(parentId))) throw invalid('order', w.categoriesAreTwoLevels());
    const shape = (parentId ? rows.get(parentId) : rows.get(id))?.shape;
    const before = rows.get(id);
    if (!shape || (before?.position === position && before.parentId === parentId && before.shape === shape)) continue;
    await tx.update(category).set({ position, parentId, shape }).where(eq(category.id, id));
  }
  await audited(tx, by, { kind: 'category', id: 'all', what: { code: 'ordered' } });
}

/** Puts the categories in an order, each under its parent or at the top. */
import { z } from 'zod';
import { jsonEndpoint } from '@/server/http/endpoint';
import { orderCategories } from '@/server/categories/order';
import { serverWords } from '@/words/desk';

const w = serverWords.categoriesOrder;

const input = z.object({ order: z.array(z.object({ id: z.uuid(), parentId: z.uuid().nullable() })).max(500, w.atMost500Categories()) });

export const PUT = jsonEndpoint(input, async ({ tx, input: { order }, actor }) => {
  await orderCategories(tx, order, actor);
  return { kept: order.length };
});

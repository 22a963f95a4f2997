/** Puts the categories in an order, each under its parent or at the top. */
import { z } from 'zod';
import { jsonEndpoint } from '@/server/http/endpoint';
import { orderCategories } from '@/server/categories/order';

const input = z.object({ order: z.array(z.object({ id: z.uuid(), parentId: z.uuid().nullable() })).max(500, 'At most 500 categories') });

export const PUT = jsonEndpoint(input, async ({ tx, input: { order }, actor }) => {
  await orderCategories(tx, order, actor);
  return { kept: order.length };
});

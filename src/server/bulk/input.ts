/** What may be asked of many listings. */
import { z } from 'zod';
import { type BulkAction, MOST_SHIFT_DAYS } from '@/core/listing/bulk-actions';

const id = z.uuid({ error: 'Choose one' });
const action = z.discriminatedUnion('kind', [
  z.object({ kind: z.enum(['publish', 'withdraw', 'draft', 'bin']) }),
  z.object({ kind: z.literal('category'), id, instead: z.boolean() }),
  z.object({ kind: z.literal('venue'), id }),
  z.object({ kind: z.literal('organizer'), id, instead: z.boolean() }),
  z.object({ kind: z.literal('tag'), ids: z.array(id).min(1, 'Choose a tag').max(30), off: z.boolean() }),
  z.object({
    kind: z.literal('shift'),
    days: z
      .number({ error: 'Say by how many days' })
      .int('Whole days')
      .min(-MOST_SHIFT_DAYS, `At most ${MOST_SHIFT_DAYS} days`)
      .max(MOST_SHIFT_DAYS, `At most ${MOST_SHIFT_DAYS} days`)
      .refine((n) => n !== 0, { error: 'Say by how many days' }),
  }),
  z.object({ kind: z.literal('headline'), on: z.boolean() }),
]);

/** Chosen one by one, or everything that a choice of the table holds. */
export const bulkInput = z
  .object({ ids: z.array(z.uuid()).max(2000).optional(), query: z.string().max(2000).optional(), action })
  .refine((v) => (v.ids === undefined) !== (v.query === undefined), {
    error: 'Choose some listings first',
    path: ['ids'],
  }) as unknown as z.ZodType<{
  ids?: string[];
  query?: string;
  action: BulkAction;
}>;

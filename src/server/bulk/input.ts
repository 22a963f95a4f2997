/** What may be asked of many listings. */
import { z } from 'zod';
import { type BulkAction, MOST_SHIFT_DAYS } from '@/core/listing/bulk-actions';
import { serverWords } from '@/words/desk';

const w = serverWords.bulkInput;

const id = z.uuid({ error: w.chooseOne() });
const action = z.discriminatedUnion('kind', [
  z.object({ kind: z.enum(['publish', 'withdraw', 'draft', 'bin']) }),
  z.object({ kind: z.literal('category'), id, instead: z.boolean() }),
  z.object({ kind: z.literal('venue'), id }),
  z.object({ kind: z.literal('organizer'), id, instead: z.boolean() }),
  z.object({ kind: z.literal('tag'), ids: z.array(id).min(1, w.chooseATag()).max(30), off: z.boolean() }),
  z.object({
    kind: z.literal('shift'),
    days: z
      .number({ error: w.sayByHowMany() })
      .int(w.wholeDays())
      .min(-MOST_SHIFT_DAYS, w.atMostDays({ mostShiftDays: MOST_SHIFT_DAYS }))
      .max(MOST_SHIFT_DAYS, w.atMostDays({ mostShiftDays: MOST_SHIFT_DAYS }))
      .refine((n) => n !== 0, { error: w.sayByHowMany() }),
  }),
  z.object({ kind: z.literal('headline'), on: z.boolean() }),
]);

/** Chosen one by one, or everything that a choice of the table holds. */
export const bulkInput = z
  .object({ ids: z.array(z.uuid()).max(2000).optional(), query: z.string().max(2000).optional(), action })
  .refine((v) => (v.ids === undefined) !== (v.query === undefined), {
    error: w.chooseSomeListingsFirst(),
    path: ['ids'],
  }) as unknown as z.ZodType<{
  ids?: string[];
  query?: string;
  action: BulkAction;
}>;

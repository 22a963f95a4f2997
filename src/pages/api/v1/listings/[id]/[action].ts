/** What can be done with a listing as a whole: its stage and its web address. Objects are checked in the writes. */
import { z } from 'zod';
import { eq } from 'drizzle-orm';
import { user } from '@/server/db/schema';
import { NO_TIMES } from '@/core/listing/publication-times';
import { jsonEndpoint } from '@/server/http/endpoint';
import { idOf, Problem } from '@/server/problem';
import { sendForReview } from '@/server/moderation/write';
import { setTimes, timesInput, timesOf } from '@/server/listings/publication-times';
import { type Changed, changeSlug, moveToStage, publishListing, type Row } from '@/server/listings/write';
import { serverWords } from '@/words/desk';

const w = serverWords.listingsIdAction;

const input = z.object({
  revision: z.number().int().min(1),
  slug: z.string().max(200).optional(),
  times: timesInput.pick({ publishAt: true, withdrawAt: true }).optional(),
});

export const POST = jsonEndpoint(input, async ({ tx, actor, input: { revision, slug, times }, change, context }) => {
  const id = idOf(context.params.id, 'listing');
  const run = {
    publish: () => publishListing(tx, id, revision, change),
    withdraw: () => moveToStage(tx, id, 'withdrawn', change),
    bin: () => moveToStage(tx, id, 'binned', change),
    restore: () => moveToStage(tx, id, 'draft', change),
    times: () => setTimes(tx, id, { revision, ...(times ?? NO_TIMES) }, change),
    slug: () => changeSlug(tx, id, slug ?? '', change),
    review: async () => {
      const [me] = await tx
        .select({ email: user.email })
        .from(user)
        .where(eq(user.id, actor.id ?? ''));
      await sendForReview(tx, id, revision, me?.email ?? '', change);
      return undefined;
    },
  }[context.params.action ?? ''];
  if (!run) throw new Problem('missing', w.thereIsNoSuch());
  const row: (Row & Partial<Changed>) | undefined = await run();
  if (!row) return { stage: 'in-review' };
  const { slug: now, stage, edited, scheduleWrong } = row;
  const ended = (row.ended ?? []).map(({ original }) => original);
  return {
    ...(ended.length ? { ended } : {}),
    revision: row.revision,
    slug: now,
    stage,
    edited,
    scheduleWrong,
    times: timesOf(row, change.settings),
  };
});

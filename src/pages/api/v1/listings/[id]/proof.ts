/** Answers for a note of Proof with a reason, takes that back, or says that a part of a copy was looked at. */
import { z } from 'zod';
import { jsonEndpoint } from '@/server/http/endpoint';
import { idOf } from '@/server/problem';
import { readListing } from '@/server/listings/read';
import { lookedAt } from '@/server/validation/copies';
import { readWaivers, unwaiveNote, waiveNote } from '@/server/validation/write';
import { serverWords } from '@/words/desk';

const w = serverWords.listingsIdProof;

const key = z.string().min(1).max(120);
const input = z.discriminatedUnion('do', [
  z.object({ do: z.literal('waive'), key, reason: z.string().max(300, w.atMost300Characters()) }),
  z.object({ do: z.literal('ask-again'), key }),
  z.object({ do: z.literal('looked'), part: z.enum(['title', 'when']) }),
]);

export const POST = jsonEndpoint(input, async ({ tx, input: asked, actor, change, context }) => {
  const id = idOf(context.params.id, 'listing');
  // Contributors answer for their own.
  await readListing(tx, id, actor);
  if (asked.do === 'waive') await waiveNote(tx, id, asked.key, asked.reason, actor, new Date(change.now.ms));
  else if (asked.do === 'ask-again') await unwaiveNote(tx, id, asked.key);
  else await lookedAt(tx, id, asked.part);
  return { waivers: await readWaivers(tx, id) };
});

/** A decision on what waits in Intake: on all of it, or on what its sender changed after an editor began. */
import { z } from 'zod';
import { isSentPart, type SentPart } from '@/core/listing/sent';
import { jsonEndpoint } from '@/server/http/endpoint';
import { Problem } from '@/server/problem';
import { newPlacesInput } from '@/server/moderation/sent-places';
import { DECISIONS, decide, decideProposal } from '@/server/moderation/write';
import { serverWords } from '@/words/desk';

const w = serverWords.intakeIdDecision;

const input = z.object({
  note: z.string().max(2000, w.aNoteHasAt()).default(''),
  places: newPlacesInput.optional(),
  /** with `changes`: the parts that are taken */
  take: z
    .array(z.string().refine(isSentPart, { error: w.thereIsNoSuch() }))
    .max(20)
    .default([]),
});

export const POST = jsonEndpoint(input, async ({ tx, input: { note, places, take }, change, context }) => {
  const id = context.params.id ?? '';
  if (context.params.decision === 'changes') return decideProposal(tx, id, take as SentPart[], change);
  const decision = DECISIONS.find((d) => d === context.params.decision);
  if (!decision) throw new Problem('missing', w.thereIsNoSuchDecision());
  return decide(tx, { id, decision, note, places }, change);
});

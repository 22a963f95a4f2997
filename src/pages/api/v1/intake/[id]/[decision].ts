/** A decision on what waits in Intake. */
import { z } from 'zod';
import { jsonEndpoint } from '@/server/http/endpoint';
import { Problem } from '@/server/http/problem';
import { DECISIONS, decide } from '@/server/intake/write';

const input = z.object({ note: z.string().max(2000, 'A note has at most 2,000 characters').default('') });

export const POST = jsonEndpoint(input, async ({ tx, input: { note }, change, context }) => {
  const decision = DECISIONS.find((d) => d === context.params.decision);
  if (!decision) throw new Problem(404, 'There is no such decision.');
  return decide(tx, { id: context.params.id ?? '', decision, note, site: context.locals.rt.address() }, change);
});

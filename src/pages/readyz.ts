/** Can the site answer and take changes now? 200 or 503; what exactly is wrong is told to this machine alone. */
import type { APIRoute } from 'astro';
import { readReadiness } from '@/server/health/ready';
import { isOwnMachine } from '@/server/http/metrics';

export const GET: APIRoute = async ({ locals, clientAddress }) => {
  const readiness = await readReadiness(locals.rt, new Date());
  const told = isOwnMachine(locals.address ?? clientAddress, locals.passedOn) ? readiness : { ready: readiness.ready };
  return new Response(`${JSON.stringify(told)}\n`, {
    status: readiness.ready ? 200 : 503,
    headers: { 'content-type': 'application/json', 'cache-control': 'no-store', ...(readiness.ready ? {} : { 'retry-after': '5' }) },
  });
};

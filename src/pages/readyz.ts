/** Can the site answer and take changes now? 200 or 503; what exactly is wrong is told to this machine alone. */
import type { APIRoute } from 'astro';
import { readReadiness } from '@/server/health/ready';

const OWN_MACHINE = /^(127\.|::1$|::ffff:127\.)/;

export const GET: APIRoute = async ({ locals, clientAddress }) => {
  const readiness = await readReadiness(locals.rt, new Date());
  const told = OWN_MACHINE.test(locals.address ?? clientAddress) ? readiness : { ready: readiness.ready };
  return new Response(`${JSON.stringify(told)}\n`, {
    status: readiness.ready ? 200 : 503,
    headers: { 'content-type': 'application/json', 'cache-control': 'no-store', ...(readiness.ready ? {} : { 'retry-after': '5' }) },
  });
};

/** Measurements for a monitor: for callers on this machine, or with the operator's token; for anybody else there is no such page. */
import type { APIRoute } from 'astro';
import { hasToken, isOwnMachine, metricsOf } from '@/server/http/metrics';
import { notFound } from '@/server/problem';

export const GET: APIRoute = async ({ locals, clientAddress, request }) => {
  const known =
    isOwnMachine(locals.address ?? clientAddress, locals.passedOn) ||
    hasToken(request.headers.get('authorization'), process.env.ALMANAC_METRICS_TOKEN);
  if (!known) throw notFound('page');
  const metrics = metricsOf(locals.rt);
  return new Response(await metrics.text(locals.rt, new Date()), {
    headers: { 'content-type': metrics.registry.contentType, 'cache-control': 'no-store' },
  });
};

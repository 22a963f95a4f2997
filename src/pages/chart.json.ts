/** The site's own small vector map; with `part=own` its own drawing alone, over the world's tiles. */
import type { APIRoute } from 'astro';
import { readChart } from '@/server/site/read';

export const GET: APIRoute = async ({ locals, url }) => {
  const chart = (await readChart(locals.rt.db)) ?? null;
  const own = chart && { ...chart, features: chart.features.slice(0, chart.own ?? 0) };
  return new Response(JSON.stringify(url.searchParams.get('part') === 'own' ? own : chart), {
    headers: { 'content-type': 'application/json' },
  });
};

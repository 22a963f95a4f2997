/** The site's own small vector map. */
import type { APIRoute } from 'astro';
import { readChart } from '@/server/site/read';

export const GET: APIRoute = async ({ locals }) =>
  new Response(JSON.stringify((await readChart(locals.rt.db)) ?? null), { headers: { 'content-type': 'application/json' } });

/** The process is alive. Asks nothing of the database: a process is not to be restarted for it. */
import type { APIRoute } from 'astro';

export const GET: APIRoute = () => new Response('ok\n', { headers: { 'content-type': 'text/plain', 'cache-control': 'no-store' } });

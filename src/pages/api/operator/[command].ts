/** What the command line asks of a running server, through the socket in its data folder (see access.ts). */
import type { APIRoute } from 'astro';
import { z } from 'zod';
import { ROLES } from '@/server/accounts/roles';
import { createAccount } from '@/server/accounts/write';
import type { Db } from '@/server/db/client';
import { exportIcal, exportJson, importFile } from '@/server/exchange/operator';
import { answer } from '@/server/http/endpoint';
import { explain, Problem, problemResponse, read } from '@/server/http/problem';
import { rebuildIndex } from '@/server/listings/rebuild';
import type { Runtime } from '@/server/runtime';
import { hasListings } from '@/server/listings/read';

const account = z.object({ name: z.string(), email: z.string(), role: z.enum(ROLES), password: z.string() });
const OPERATOR = { id: null, name: 'The operator', role: 'site' as const };

const commands: Record<string, (rt: Runtime, input: unknown) => Promise<unknown>> = {
  ready: async (rt) => ({ name: rt.settings().name, empty: !(await hasListings(rt.db)) }),
  user: async (rt, input) => {
    const values = read(account, input);
    await rt.db.transaction((tx) => createAccount(tx as unknown as Db, rt.auth, values, OPERATOR));
    return { email: values.email, role: values.role };
  },
  rebuild: (rt) => rebuildIndex(rt.db, rt.settings(), rt.now()),
  seed: async (rt) => {
    if (!rt.demo) throw new Problem(409, 'Seeding fills a site with invented events; it is for a demo (./bin/demo) only.');
    const { seedDemo } = await import('#demo/seed');
    const result = await seedDemo(rt.db, rt.auth, rt.now());
    await rt.reloadSettings();
    return result;
  },
  import: (rt, input) => importFile(rt, input),
  'export-ical': (rt) => exportIcal(rt),
  'export-json': (rt) => exportJson(rt),
  close: async (rt) => {
    await rt.close();
    return null;
  },
};

export const POST: APIRoute = async ({ params, locals, request }) => {
  try {
    const command = Object.hasOwn(commands, params.command ?? '') ? commands[params.command as string] : undefined;
    if (!command) throw new Problem(404, 'There is no such command.');
    const text = await request.text();
    return answer(await command(locals.rt, text ? JSON.parse(text) : {}));
  } catch (error) {
    return problemResponse(explain(error));
  }
};

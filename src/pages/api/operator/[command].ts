/** What the command line asks of a running server, through the socket in its data folder (see access.ts). */
import type { APIRoute } from 'astro';
import { parseJson } from '@/core/text/clean';
import { z } from 'zod';
import { ROLES } from '@/server/accounts/roles';
import { createAccount } from '@/server/accounts/write';
import { backup, check, restore } from '@/server/backup/operator';
import { exportAll, exportDocument, exportIcal, exportSite, importFile, importSite } from '@/server/exchange/operator';
import { readSetup } from '@/server/first-visit/setup-file';
import { setUpSite } from '@/server/first-visit/finish';
import { answer } from '@/server/http/endpoint';
import { addMap, removeMap, sayMap } from '@/server/map/operator';
import { takeOldAddresses } from '@/server/old-addresses/take';
import { addAddresses, removeAddresses } from '@/server/places/address-operator';
import { readPublishInput } from '@/server/plain-files/publish';
import { Problem, read } from '@/server/problem';
import { explain } from '@/server/explain';
import { problemResponse } from '@/server/http/problem';
import { countListings, type RebuildReport, startRebuild } from '@/server/dates/rebuild';
import type { Runtime } from '@/server/runtime-type';
import { hasListings } from '@/server/listings/read';

const account = z.object({ name: z.string(), email: z.string(), role: z.enum(ROLES), password: z.string() });
const OPERATOR = { id: null, name: 'The operator', role: 'site' as const };

const commands: Record<string, (rt: Runtime, input: unknown) => Promise<unknown>> = {
  ready: async (rt) => ({
    name: rt.settings().name,
    empty: !(await hasListings(rt.db)),
    setUp: await rt.isSetUp(),
    signIns: rt.demo ? (await import('#demo/people')).SIGN_INS : [],
  }),
  // Where a new site is set up, with a new key: only for whoever sees this console.
  'setup-address': async (rt) => {
    await refuseSetUp(rt);
    return `${rt.siteUrl()}/first-visit?key=${rt.firstVisit.make(Date.now())}`;
  },
  setup: async (rt, input) => {
    await refuseSetUp(rt);
    const { answers, password } = await readSetup(rt.world, input);
    await setUpSite(rt, answers, password);
    await rt.reloadSettings();
    await rt.contentChanged();
    rt.firstVisit.end();
    const { name, zone, currency } = rt.settings();
    return { name, zone, currency, mail: answers.mail };
  },
  user: async (rt, input) => {
    const values = read(account, input);
    await rt.db.transaction((tx) => createAccount(tx, rt.auth, values, OPERATOR));
    return { email: values.email, role: values.role };
  },
  rebuild: (rt) => rebuild(rt),
  seed: async (rt) => {
    if (!rt.demo) throw new Problem('conflict', 'Seeding fills a site with invented events; it is for a demo (./bin/demo) only.');
    const { seedDemo } = await import('#demo/seed');
    const result = await seedDemo(rt, rt.now());
    await rt.reloadSettings();
    return result;
  },
  map: (rt) => sayMap(rt),
  'map-add': (rt, input) => addMap(rt, input, OPERATOR),
  'map-remove': (rt, input) => removeMap(rt, input, OPERATOR),
  places: (rt) => rt.addressBook.files(),
  'places-add': (rt, input) => addAddresses(rt, input, OPERATOR),
  'places-state': async (rt) => rt.addressBook.reading ?? null,
  'places-remove': (rt, input) => removeAddresses(rt, input, OPERATOR),
  'old-addresses': (rt) => rt.oldAddresses.all(),
  'take-addresses': (rt, input) => takeOldAddresses(rt, input),
  import: (rt, input) => importFile(rt, input),
  'export-ical': (rt) => exportIcal(rt),
  'export-json': (rt) => exportDocument(rt),
  'export-site': (rt, input) => exportSite(rt, input),
  'import-site': (rt, input) => importSite(rt, input),
  backup: (rt, input) => backup(rt, input),
  restore: (rt, input) => restore(rt, input),
  check: (rt, input) => check(rt, input),
  'export-csv': (rt) => exportAll(rt, 'listings.csv'),
  'export-dates': (rt) => exportAll(rt, 'dates.csv'),
  'publish-files': (rt, input) => rt.plainFiles.write(readPublishInput(input)),
  'publish-state': async (rt) => rt.plainFiles.writing?.at ?? null,
  // Nobody waits for it: who comes meanwhile is answered by the database.
  warm: async (rt) => {
    void rt.finder.made();
    return null;
  },
  close: async (rt) => {
    await rt.close();
    return null;
  },
};

/** A site is set up once. */
async function refuseSetUp(rt: Runtime): Promise<void> {
  if (await rt.isSetUp())
    throw new Problem('conflict', 'This site is set up already: sign in at /desk, or make an account with almanac user add.');
}

/** The operator waits as long as it takes; the site goes on answering meanwhile. */
async function rebuild(rt: Runtime): Promise<RebuildReport> {
  const total = await countListings(rt.db);
  const id = await rt.db.transaction((tx) => startRebuild(tx, 'rebuild', total, rt.now()));
  const { done, state, input, said } = await rt.jobs.wait(id, Number.POSITIVE_INFINITY);
  if (state !== 'done') throw new Problem('failed', said || 'The date index could not be made anew.');
  return { listings: done, dates: input.dates ?? 0, differed: input.differed ?? [] };
}

export const POST: APIRoute = async ({ params, locals, request }) => {
  try {
    const command = Object.hasOwn(commands, params.command ?? '') ? commands[params.command as string] : undefined;
    if (!command) throw new Problem('missing', 'There is no such command.');
    const text = await request.text();
    return answer(await command(locals.rt, text ? parseJson(text) : {}));
  } catch (error) {
    return problemResponse(explain(error));
  }
};

/** The endpoint helper: parse, run in one transaction, answer or explain. Who may call is in access.ts. */
import type { APIContext, APIRoute } from 'astro';
import type { z } from 'zod';
import { parseJson } from '@/core/text/clean';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import type { Change } from '../listings/write';
import { Problem, read, refused } from '../problem';
import { explain } from '../explain';
import { problemResponse } from './problem';
import { serverWords } from '@/words/desk';

const w = serverWords.httpEndpoint;

/** What an endpoint is handed: who calls, the site, and what came in, checked. */
export interface Call<T> {
  tx: Db;
  actor: Actor;
  input: T;
  change: Change;
  context: APIContext;
}

/** An endpoint that takes JSON and answers JSON; everything it writes is one transaction. */
export function jsonEndpoint<T>(schema: z.ZodType<T>, run: (call: Call<T>) => Promise<unknown>): APIRoute {
  return async (context) => {
    try {
      const input = read(schema, await readJson(context.request));
      const { rt, actor, now, settings } = context.locals;
      if (!actor) throw refused();
      const value = await rt.db.transaction((tx) => run({ tx: tx, actor, input, change: { by: actor, now, settings }, context }));
      return answer(value);
    } catch (error) {
      return problemResponse(explain(error));
    }
  };
}

/** A value as JSON that nobody keeps. */
export function answer(value: unknown, status = 200): Response {
  return new Response(JSON.stringify(value ?? null), {
    status,
    headers: { 'content-type': 'application/json', 'cache-control': 'no-store' },
  });
}

const MAX_JSON = 400_000;

/** The body of a request as JSON, bounded. Throws a Problem where it is none or too large. */
export async function readJson(request: Request): Promise<unknown> {
  const type = request.headers.get('content-type') ?? '';
  if (!type.includes('application/json')) throw new Problem('wrong-type', w.thisTakesJSONContent());
  const text = await request.text();
  if (text.length > MAX_JSON) throw new Problem('too-large', w.thatIsMoreText());
  try {
    return parseJson(text);
  } catch {
    throw new Problem('malformed', w.thatIsNotJSON());
  }
}

/** Runs a change of a page's own form; a Problem comes back by field for the page to show, anything else is thrown on. */
export async function tryForm<T>(
  run: () => Promise<T>,
): Promise<{ value: T; problem: undefined } | { value: undefined; problem: Problem }> {
  try {
    return { value: await run(), problem: undefined };
  } catch (error) {
    const problem = explain(error);
    return { value: undefined, problem };
  }
}

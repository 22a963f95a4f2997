/** What goes wrong on purpose, and the one place that makes errors into answers (RFC 9457 application/problem+json). */
import { randomBytes } from 'node:crypto';
import type { z } from 'zod';
import { DeadlineError } from '../db/embedded';
import { FolderInUseError } from '../db/lock';
import { SENDING_WORDS, type SendingWords } from '@/words/sending';
import { log } from '../health/log';

/** Says something in a reader's language. */
export type Say = (words: SendingWords) => string;

export interface FieldError {
  /** dotted path of the field, as in the input: `recurrence.parts.0.start` */
  field: string;
  message: string;
  /** the message in other languages, where readers meet it */
  say?: Say;
}

/** An error that its reader may see: what is wrong, where, and what would be right. */
export class Problem extends Error {
  override name = 'Problem';
  constructor(
    readonly status: number,
    readonly title: string,
    readonly fields: FieldError[] = [],
    /** more for the program that asked: the newer copy of a listing, say */
    readonly extra: Record<string, unknown> = {},
    /** the title in other languages, where readers meet it */
    readonly say?: Say,
  ) {
    super(title);
  }
}

export const notFound = (what: string): Problem => new Problem(404, `There is no such ${what}.`);
export const refused = (title = 'This is not open to you.'): Problem => new Problem(403, title);
export const invalid = (field: string, message: string): Problem => new Problem(422, message, [{ field, message }]);

const ENGLISH = SENDING_WORDS.en;

/** What is wrong with a field of a form that readers fill in, in their language. */
export const fieldError = (field: string, say: Say): FieldError => ({ field, message: say(ENGLISH), say });

/** The same as a Problem by itself. */
export const invalidIn = (field: string, say: Say): Problem => new Problem(422, say(ENGLISH), [fieldError(field, say)], {}, say);

/** A Problem as a reader of some language sees it: its title, and what is wrong by field. */
export function sayIn({ title, fields, say }: Problem, words: SendingWords): { title: string; fields: Map<string, string> } {
  return {
    title: say ? say(words) : title,
    fields: new Map(fields.map((one) => [one.field, one.say ? one.say(words) : one.message])),
  };
}

/** What a form that somebody filled in needs, all of it at once. */
export function invalidFields(fields: FieldError[], extra: Record<string, unknown> = {}): Problem {
  const [only] = fields;
  const alone = fields.length === 1 ? only : undefined;
  const say: Say = (words) => (alone ? (alone.say?.(words) ?? alone.message) : words.wrong.several({ n: fields.length }));
  return new Problem(422, say(ENGLISH), fields, extra, say);
}

/** Reads `raw` by a schema; what does not fit becomes a Problem that names the fields, never their values. */
export function read<T>(schema: z.ZodType<T>, raw: unknown): T {
  const result = schema.safeParse(raw);
  if (result.success) return result.data;
  const fields = result.error.issues.slice(0, 20).map((issue) => ({ field: issue.path.join('.'), message: issue.message }));
  throw new Problem(422, fields[0]?.message ?? 'The input could not be read.', fields);
}

/** What a reader may know of any error: a Problem as it is, anything else as a number to quote. */
export function explain(error: unknown): Problem {
  if (error instanceof Problem) return error;
  const busy = error instanceof DeadlineError || (error as { cause?: unknown })?.cause instanceof DeadlineError;
  if (busy) return new Problem(503, 'That took too long and was stopped. Nothing was changed; try again.');
  if (error instanceof FolderInUseError) return new Problem(409, error.message);
  const gone = goneReference(error);
  if (gone) return gone;
  const reference = randomBytes(4).toString('hex');
  log.error({ reference, err: error }, 'A request failed');
  return new Problem(500, `Something failed on our side. Nothing was changed. Quote ${reference} to the people who run this site.`);
}

/** A listing that points to what somebody removed meanwhile: the database knows, the editor is told which. */
function goneReference(error: unknown): Problem | undefined {
  const cause = (error as { cause?: { code?: string; constraint?: string } })?.cause;
  if (cause?.code !== '23503') return undefined;
  const kind = /(venue|organizer|category|picture)_id/.exec(cause.constraint ?? '')?.[1];
  if (!kind) return undefined;
  const field = kind === 'picture' ? 'pictureId' : `${kind}Ids`;
  return invalid(field, `A chosen ${kind} was removed meanwhile; choose another.`);
}

/** A Problem as its answer (RFC 9457). */
export function problemResponse(problem: Problem): Response {
  const body = {
    type: 'about:blank',
    title: problem.title,
    status: problem.status,
    fields: problem.fields.map(({ field, message }) => ({ field, message })),
    ...problem.extra,
  };
  return new Response(JSON.stringify(body), {
    status: problem.status,
    headers: { 'content-type': 'application/problem+json', 'cache-control': 'no-store' },
  });
}

/** What goes wrong on purpose: typed errors that any part of the server throws, without a word of HTTP. */
import type { z } from 'zod';
import { isId } from './db/ids';
import { SENDING_WORDS, type SendingWords } from '@/words/sending';
import { serverWords } from '@/words/desk';

const w = serverWords.problem;

/** Says something in a reader's language. */
export type Say = (words: SendingWords) => string;

/** What is wrong with a field, in a sentence. */
export interface FieldError {
  /** dotted path of the field, as in the input: `recurrence.parts.0.start` */
  field: string;
  message: string;
  /** the message in other languages, where readers meet it */
  say?: Say;
}

/** What kind of thing went wrong; how that is said over HTTP is `http/problem.ts`'s matter. */
export type ProblemKind =
  /** could not be read at all */
  | 'malformed'
  | 'signed-out'
  /** this person may not */
  | 'refused'
  | 'missing'
  /** it is not as it was, or something else stands in the way */
  | 'conflict'
  | 'too-large'
  | 'wrong-type'
  /** something in it has to change */
  | 'invalid'
  | 'too-often'
  /** our own fault */
  | 'failed'
  | 'busy';

/** An error that its reader may see: what is wrong, where, and what would be right. */
export class Problem extends Error {
  override name = 'Problem';
  constructor(
    readonly kind: ProblemKind,
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

/** Something that is not there, or that somebody may not know of. */
export const notFound = (what: string): Problem => new Problem('missing', w.thereIsNoSuch({ what }));
/** Something that somebody may not do. */
export const refused = (title = w.thisIsNotOpen()): Problem => new Problem('refused', title);
/** Something that is wrong with one field. */
export const invalid = (field: string, message: string): Problem => new Problem('invalid', message, [{ field, message }]);

const ENGLISH = SENDING_WORDS.en;

/** What is wrong with a field of a form that readers fill in, in their language. */
export const fieldError = (field: string, say: Say): FieldError => ({ field, message: say(ENGLISH), say });

/** The same as a Problem by itself. */
export const invalidIn = (field: string, say: Say): Problem => new Problem('invalid', say(ENGLISH), [fieldError(field, say)], {}, say);

/** A Problem that readers meet, in their language. */
export const problemIn = (kind: ProblemKind, say: Say): Problem => new Problem(kind, say(ENGLISH), [], {}, say);

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
  return new Problem('invalid', say(ENGLISH), fields, extra, say);
}

/** Reads `raw` by a schema; what does not fit becomes a Problem that names the fields, never their values. */
export function read<T>(schema: z.ZodType<T>, raw: unknown): T {
  const result = schema.safeParse(raw);
  if (result.success) return result.data;
  const fields = result.error.issues.slice(0, 20).map((issue) => ({ field: issue.path.join('.'), message: issue.message }));
  throw new Problem('invalid', fields[0]?.message ?? w.theInputCouldNot(), fields);
}

/** An id from the address; anything that is none names nothing. */
export function idOf(text: string | undefined, what: string): string {
  if (!text || !isId(text)) throw notFound(what);
  return text;
}

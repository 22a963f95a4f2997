/** The one place that makes errors into answers (RFC 9457 application/problem+json). */
import type { Problem, ProblemKind } from '../problem';

const STATUS: Record<ProblemKind, number> = {
  malformed: 400,
  'signed-out': 401,
  refused: 403,
  missing: 404,
  conflict: 409,
  'too-large': 413,
  'wrong-type': 415,
  invalid: 422,
  'too-often': 429,
  failed: 500,
  busy: 503,
};

/** The status with which a Problem is answered (RFC 9110 15.5). */
export const statusOf = ({ kind }: Problem): number => STATUS[kind];

/** When to ask again, in seconds, where the site has too much to do (RFC 9110 10.2.3). */
export const comeBack = ({ kind }: Problem): Record<string, string> => (kind === 'busy' ? { 'retry-after': '5' } : {});

/** A Problem as its answer (RFC 9457). */
export function problemResponse(problem: Problem): Response {
  const body = {
    type: 'about:blank',
    title: problem.title,
    status: statusOf(problem),
    fields: problem.fields.map(({ field, message }) => ({ field, message })),
    ...problem.extra,
  };
  return new Response(JSON.stringify(body), {
    status: statusOf(problem),
    headers: { 'content-type': 'application/problem+json', 'cache-control': 'no-store', ...comeBack(problem) },
  });
}

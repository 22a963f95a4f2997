/** The Problem with which something is refused; the test fails when it is not. */
import { expect } from 'vitest';
import { Problem } from '@/server/problem';

export async function problem(run: Promise<unknown>): Promise<Problem> {
  const error = await run.then(
    () => undefined,
    (e: unknown) => e,
  );
  expect(error).toBeInstanceOf(Problem);
  return error as Problem;
}

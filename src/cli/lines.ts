/** JSON lines in, JSON lines out, one answer for each line whatever becomes of the others. */
import { once } from 'node:events';
import { createInterface } from 'node:readline';

/** A line longer than this is refused; the largest honest one has a few hundred dates. */
const MOST_CHARACTERS = 1_000_000;

/** A sentence for whoever wrote the line. */
export class LineError extends Error {
  override name = 'LineError';
}

export type Answer = Record<string, unknown>;

/** Answers each line of standard input with what `answer` makes of it, or `{"id","error"}`; waits when the reader is slow. */
export async function answerLines(answer: (raw: Answer) => Answer): Promise<void> {
  for await (const line of createInterface({ input: process.stdin, crlfDelay: Number.POSITIVE_INFINITY })) {
    if (!line.trim()) continue;
    if (!process.stdout.write(`${JSON.stringify(answerLine(line, answer))}\n`)) await once(process.stdout, 'drain');
  }
}

function answerLine(line: string, answer: (raw: Answer) => Answer): Answer {
  let id: unknown = null;
  try {
    const raw = parse(line);
    id = raw.id ?? null;
    return { id, ...answer(raw) };
  } catch (error) {
    return { id, error: sentenceOf(error) };
  }
}

function parse(line: string): Answer {
  if (line.length > MOST_CHARACTERS) throw new LineError(`The line is longer than ${MOST_CHARACTERS.toLocaleString('en')} characters`);
  let raw: unknown;
  try {
    raw = JSON.parse(line);
  } catch {
    throw new LineError('The line is no JSON');
  }
  if (typeof raw !== 'object' || raw === null || Array.isArray(raw)) throw new LineError('The line must be one JSON object');
  return raw as Answer;
}

/** Our own errors say what is wrong; anything else is a defect, and says only so. */
export function sentenceOf(error: unknown): string {
  const ours = error instanceof Error && ['LineError', 'SetError', 'RuleTextError', 'PhraseError', 'CliError'].includes(error.name);
  return ours ? error.message : 'Something failed in reading this';
}

/** Text at a key, bounded; undefined when it is absent or null. */
export function textAt(raw: Answer, key: string, most = 10_000): string | undefined {
  const value = raw[key];
  if (value === undefined || value === null) return undefined;
  if (typeof value !== 'string') throw new LineError(`${key} must be text`);
  if (value.length > most) throw new LineError(`${key} is longer than ${most.toLocaleString('en')} characters`);
  return value;
}

/** A list of texts at a key; empty when it is absent or null. */
export function textsAt(raw: Answer, key: string, most = 5_000): string[] {
  const value = raw[key];
  if (value === undefined || value === null) return [];
  if (!Array.isArray(value) || value.some((item) => typeof item !== 'string')) throw new LineError(`${key} must be a list of texts`);
  if (value.length > most) throw new LineError(`${key} has more than ${most.toLocaleString('en')} entries`);
  return value as string[];
}

/** An object at a key with two texts, as spans are written; undefined when it is absent or null. */
export function spanAt(value: unknown, key: string): { from: string; to: string } | undefined {
  if (value === undefined || value === null) return undefined;
  const { from, to } = (typeof value === 'object' ? value : {}) as { from?: unknown; to?: unknown };
  if (typeof from !== 'string' || typeof to !== 'string') throw new LineError(`${key} must be {"from": "2024-01-01", "to": "2024-12-31"}`);
  return { from, to };
}

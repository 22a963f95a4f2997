/** Answers of the database, remembered while the content stays as it is. */

/** So many answers are remembered at once; the oldest goes first. */
const MOST_ANSWERS = 50;

interface Kept {
  revision: string;
  answers: Map<string, Promise<unknown>>;
  /** what was asked once: whole halls are read when somebody comes back, not while everything changes all the time */
  once: Set<string>;
}
let kept: Kept | undefined;

function keptAt(revision: string): Kept {
  if (kept?.revision !== revision) kept = { revision, answers: new Map(), once: new Set() };
  return kept;
}

/** `revision`: the state of the content that an answer is for; undefined = it is being changed right now, so nothing is remembered. */
export function cached<T>(revision: string | undefined, key: string, ask: () => Promise<T>): Promise<T> {
  if (revision === undefined) return ask();
  const { answers } = keptAt(revision);
  const known = answers.get(key);
  if (known) return known as Promise<T>;
  const asked = ask();
  answers.set(key, asked);
  asked.catch(() => answers.delete(key));
  const [oldest] = answers.keys();
  if (answers.size > MOST_ANSWERS && oldest !== undefined) answers.delete(oldest);
  return asked;
}

/** Was this asked before in this state of the content? From now on it was. */
export function comesBack(revision: string | undefined, key: string): boolean {
  if (revision === undefined) return false;
  const { once } = keptAt(revision);
  if (once.has(key)) return true;
  once.add(key);
  return false;
}

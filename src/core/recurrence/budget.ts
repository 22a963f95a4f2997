/**
 * How much may be looked at for one answer. A rule may name a day in centuries, or none at all; whoever asks is told "too much"
 * after a bounded time, and never waits for the last of them.
 */

/** So many periods and dates for one question: a rule of every day since the year 1000, or ten times what the longest sensible listing needs. */
export const MOST_LOOKED_AT = 500_000;

/** The budget is used up. Caught where the question was asked, and told as a value. */
export class TooMuch extends Error {}

/** What is left to be looked at for one question; each question has its own. */
export class Budget {
  #left: number;

  /** @param looks how many periods or dates may be looked at */
  constructor(looks: number = MOST_LOOKED_AT) {
    this.#left = looks;
  }

  /** Something is looked at. @throws TooMuch when nothing is left */
  spend(looks = 1): void {
    this.#left -= looks;
    if (this.#left < 0) throw new TooMuch();
  }
}

/** The answer, or undefined when it needs more than the budget allows. */
export function within<T>(ask: () => T): T | undefined {
  try {
    return ask();
  } catch (error) {
    if (error instanceof TooMuch) return undefined;
    throw error;
  }
}

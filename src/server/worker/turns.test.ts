import { describe, expect, it } from 'vitest';
import { inTurns } from './turns';

const busy = (ms: number): void => {
  const until = performance.now() + ms;
  while (performance.now() < until);
};

describe('long work in turns', () => {
  it('makes all in order, and others come in between', async () => {
    let others = 0;
    const timer = setInterval(() => others++, 1);
    const made = await inTurns([1, 2, 3, 4, 5, 6], (n) => {
      busy(10);
      return n * others;
    });
    clearInterval(timer);
    expect(made).toHaveLength(6);
    // The first was made before anybody had a turn, the last after some had.
    expect(made[0]).toBe(0);
    expect(made[5]).toBeGreaterThan(0);
  });
  it('fails as what it makes fails', async () => {
    await expect(
      inTurns([1], () => {
        throw new Error('no');
      }),
    ).rejects.toThrow('no');
  });
});

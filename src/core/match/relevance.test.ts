import { describe, expect, it } from 'vitest';
import { bestFirst, titleKey, titleScore } from './relevance';

describe('what is called as asked for', () => {
  it.each([
    ['Harbour Choir', ['choir'], 2],
    ['Harbour Choir', ['hoi'], 1],
    ['Harbour Choir', ['harbour', 'cho'], 4],
    ['Chœur du port', ['choeur'], 2],
    ['Ceilidh at the Net Loft', ['net loft'], 2],
    ['Ceilidh (in the Loft)', ['loft'], 2],
    ['Seed Swap', ['choir'], 0],
    ['', ['choir'], 0],
  ])('%s for %j: %s', (title, words, score) => {
    expect(titleScore(titleKey(title), words)).toBe(score);
  });

  it('comes first, and what answers alike stays in its order', () => {
    const titles = ['Seed Swap', 'Anchoir', 'Choir A', 'Tea', 'Choir B'];
    expect(bestFirst(titles, titleKey, ['choir'])).toEqual(['Choir A', 'Choir B', 'Anchoir', 'Seed Swap', 'Tea']);
    expect(bestFirst(titles, titleKey, [])).toEqual(titles);
  });
});

import { expect, test } from 'vitest';
import { CORPUS } from './corpus';
import { judge, judgeAll } from './judge';
import { LAST, daily, nth, weekly } from './oracle';

const phrases = Object.values(CORPUS).flat();

test('the corpus holds 400 phrases, none twice, a third of them doubtful, impossible or not about time', () => {
  expect(phrases.length).toBeGreaterThanOrEqual(400);
  expect(new Set(phrases.map(([text]) => text)).size).toBe(phrases.length);
  expect(phrases.filter(([, means]) => typeof means === 'string').length).toBeGreaterThan(phrases.length / 3);
  for (const [text, means] of phrases) {
    if (typeof means === 'string') continue;
    expect(means.dates.length, text).toBeGreaterThan(0);
    expect(means.dates, text).toEqual([...new Set(means.dates)].sort());
  }
});

test('the dates of the corpus are those of a wall calendar', () => {
  expect(nth(2, 'Fri', { every: 2 }).slice(0, 3)).toEqual(['2027-03-12', '2027-05-14', '2027-07-09']);
  expect(nth(-1, 'Sun').slice(0, 2)).toEqual(['2027-03-28', '2027-04-25']);
  expect(weekly(['Tue'], { step: 2 }).slice(0, 3)).toEqual(['2027-03-16', '2027-03-30', '2027-04-13']);
  expect(weekly(['Tue'], { notMonths: [8] }).some((day) => day.slice(5, 7) === '08')).toBe(false);
  expect(daily({ from: '2030-02-20' }).at(-1)).toBe(LAST);
});

test('no phrase is misread in silence', () => {
  for (const { kind, counts, others } of judgeAll()) {
    const wrong = others
      .filter(([, verdict]) => verdict === 'wrong without a word' || verdict === 'dated all the same')
      .map(([text]) => text);
    expect(counts['wrong without a word'] + counts['dated all the same'], `${kind}: ${wrong.join(' | ')}`).toBe(0);
  }
});

test('of what a person understands, at least 92 in a hundred are read right', () => {
  const understood = phrases.filter(([, means]) => typeof means !== 'string');
  const right = understood.filter((phrase) => judge(phrase) === 'right').length;
  expect(right / understood.length).toBeGreaterThanOrEqual(0.92);
});

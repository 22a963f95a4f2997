import { describe, expect, it } from 'vitest';
import type { ListingContent } from '@/core/listing/content';
import { emptyContent } from '@/core/listing/fields';
import { firstStep, record, redo, type Steps, seal, undo } from './steps';

const titled = (steps: Steps, title: string, at: number): Steps => record(steps, { ...steps.present, title }, at);
const titles = (steps: Steps): string => [...steps.past, steps.present, ...steps.future].map((c) => c.title).join('>');

describe('steps of a listing', () => {
  it('gather what is typed without a pause, and part at a pause or another field', () => {
    let steps = firstStep(emptyContent());
    for (const [title, at] of [
      ['C', 1000],
      ['Ch', 1200],
      ['Choir', 1500],
    ] as const)
      steps = titled(steps, title, at);
    expect(steps.past).toHaveLength(1);
    steps = titled(steps, 'Choir night', 9000);
    steps = record(steps, { ...steps.present, summary: 'Sing' }, 9100);
    expect(steps.past).toHaveLength(3);
    steps = undo(undo(steps));
    expect(steps.present.title).toBe('Choir');
    steps = undo(steps);
    expect(steps.present.title).toBe('');
    expect(undo(steps)).toBe(steps);
  });

  it('go back and forth to exactly what was there, and forget what was undone once something else is done', () => {
    let steps = firstStep(emptyContent());
    const seen: ListingContent[] = [steps.present];
    for (let i = 1; i <= 30; i++) {
      steps = titled(steps, `Title ${i}`, i * 10_000);
      seen.push(steps.present);
    }
    for (let i = 29; i >= 0; i--) {
      steps = undo(steps);
      expect(steps.present).toBe(seen[i]);
    }
    for (let i = 1; i <= 12; i++) steps = redo(steps);
    expect(steps.present).toBe(seen[12]);
    steps = titled(steps, 'Other', 999_999);
    expect(redo(steps)).toBe(steps);
    expect(titles(steps)).toMatch(/Title 12>Other$/);
  });

  it('part at once where somebody went elsewhere', () => {
    let steps = titled(firstStep(emptyContent()), 'A', 1000);
    steps = titled(seal(steps), 'AB', 1100);
    expect(undo(steps).present.title).toBe('A');
  });

  it('do nothing when nothing changed, and keep to a bound', () => {
    let steps = firstStep(emptyContent());
    expect(record(steps, steps.present, 5)).toBe(steps);
    for (let i = 0; i < 500; i++) steps = titled(steps, String(i), i * 5000);
    expect(steps.past).toHaveLength(200);
  });
});

/** Undo and redo of a listing's content. Changes to one field that follow each other at once are one step. */
import type { ListingContent } from '@/core/listing/content';

export interface Steps {
  past: ListingContent[];
  present: ListingContent;
  future: ListingContent[];
  /** which fields the last step changed, and when, in milliseconds */
  fields: string;
  at: number;
}

/** Typing goes on as one step as long as the pauses are shorter. */
const PAUSE_MS = 800;
const MOST_STEPS = 200;

export const firstStep = (present: ListingContent): Steps => ({ past: [], present, future: [], fields: '', at: 0 });

function changedFields(before: ListingContent, after: ListingContent): string {
  const keys = Object.keys(after) as (keyof ListingContent)[];
  return keys.filter((key) => before[key] !== after[key]).join(' ');
}

/** What was done becomes a step; what was undone before can then no longer be redone. */
export function record(steps: Steps, after: ListingContent, at: number): Steps {
  if (after === steps.present) return steps;
  const fields = changedFields(steps.present, after);
  const goesOn = fields === steps.fields && at - steps.at < PAUSE_MS && steps.past.length > 0;
  const past = goesOn ? steps.past : [...steps.past, steps.present].slice(-MOST_STEPS);
  return { past, present: after, future: [], fields, at };
}

export function undo(steps: Steps): Steps {
  const before = steps.past.at(-1);
  if (!before) return steps;
  return { past: steps.past.slice(0, -1), present: before, future: [steps.present, ...steps.future], fields: '', at: 0 };
}

export function redo(steps: Steps): Steps {
  const [after, ...future] = steps.future;
  if (!after) return steps;
  return { past: [...steps.past, steps.present], present: after, future, fields: '', at: 0 };
}

/** What comes next is a step of its own: somebody went to another field, or pressed something. */
export const seal = (steps: Steps): Steps => (steps.at === 0 ? steps : { ...steps, at: 0 });

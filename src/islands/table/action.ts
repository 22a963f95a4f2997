/** What is done to many listings, as the form has it and as the server takes it. Without React. */
import { type BulkAction, MOST_SHIFT_DAYS } from '@/core/listing/bulk-actions';

export type Kind = BulkAction['kind'];

/** What the form asks for; each kind needs some of it. */
export interface Parts {
  target: string;
  tags: string[];
  instead: boolean;
  days: number;
  on: boolean;
}

/** The action as it stands in the form; undefined while something is missing. */
export function actionOf(kind: Kind, { target, tags, instead, days, on }: Parts): BulkAction | undefined {
  switch (kind) {
    case 'category':
    case 'organizer':
      return target ? { kind, id: target, instead } : undefined;
    case 'venue':
      return target ? { kind, id: target } : undefined;
    case 'shift':
      return Number.isInteger(days) && days !== 0 && Math.abs(days) <= MOST_SHIFT_DAYS ? { kind, days } : undefined;
    case 'headline':
      return { kind, on };
    case 'tag':
      return tags.length ? { kind, ids: tags, off: instead } : undefined;
    default:
      return { kind };
  }
}

/** What the fields of one recurrence part are given. */
import type { EditorStart } from '@/core/listing/editor';
import type { RecurrenceProblem } from '@/core/recurrence/problems';
import type { SunStart } from '@/core/recurrence/sun-start';
import type { StoredRecurrencePart } from '@/core/recurrence/stored';

export interface PartProps {
  recurrencePart: StoredRecurrencePart;
  site: EditorStart['site'];
  setPart: (change: (s: StoredRecurrencePart) => StoredRecurrencePart) => void;
  /** another start: by the sun, by the clock (null), or by what it was */
  setStart: (start: string, sun?: SunStart | null) => void;
  problems: RecurrenceProblem[];
  /** nobody has set the first day by hand */
  preset: boolean;
  /** makes a first date outside its rule a date of its own */
  partFirst: () => void;
}

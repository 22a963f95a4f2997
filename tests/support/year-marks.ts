/** What the year says of days, asked of this thread. */
import { YearMarks } from '@/server/holidays/year-marks';
import { perform } from '@/server/worker/tasks';

export const yearMarks = (): YearMarks =>
  new YearMarks({
    run: async function* (task) {
      yield* perform(task);
    },
  });

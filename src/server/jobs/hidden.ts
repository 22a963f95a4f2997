/** What a job is still bringing in is nobody's to see: one row of `job` hides all of it, and one short update shows it. */
import { type SQL, type SQLWrapper, sql } from 'drizzle-orm';

/**
 * The condition of every query over listings or published copies, for their column `job_id`. Asked row by row: as a list it would
 * make the planner read every published copy for a month.
 */
export const shown = (jobId: SQLWrapper): SQL =>
  sql`(${jobId} is null or not exists (select 1 from job j where j.id = ${jobId} and j.hidden))`;

/** What a job is still bringing in is nobody's to see: one row of `job` hides all of it, and one short update shows it. */
import { type SQL, type SQLWrapper, sql } from 'drizzle-orm';

/** The condition of every query over listings or published copies, for their column `job_id`. */
export const shown = (jobId: SQLWrapper): SQL => sql`(${jobId} is null or ${jobId} not in (select j.id from job j where j.hidden))`;

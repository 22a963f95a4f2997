/** Open matters of coming listings, by kind, for the Proof page. */
import { sql } from 'drizzle-orm';
import type { EpochDay } from '@/core/day/day';
import type { Stage } from '@/core/listing/content';
import { kindRank } from '@/core/validation/kinds';
import type { ValidationField, Severity } from '@/core/validation/note';
import type { Db } from '../db/client';
import { jsonRows } from '../db/json-rows';
import { shown } from '../jobs/hidden';
import type { Saying } from '@/core/validation/saying';

/** How many notes of a kind are open, in how many listings. */
export interface KindCount {
  kind: string;
  severity: Severity;
  listings: number;
  /** for how many of them there is a mend */
  quickFixes: number;
}

/** Listings that readers may yet see: with a coming date, or still being made. */
const coming = (today: EpochDay) => sql`l.stage not in ('binned', 'withdrawn') and ${shown(sql.raw('l.job_id'))}
  and (l.stage <> 'published' or exists (select 1 from occurrence o where o.listing_id = l.id and o.last_day >= ${today}))`;

/** How many coming listings have each kind of note, errors first. */
export async function countKinds(db: Db, today: EpochDay): Promise<KindCount[]> {
  const rows = await jsonRows<KindCount>(
    db,
    sql`select n.kind, min(n.severity) as severity, count(distinct n.listing_id)::int as listings, count(n.quick_fix)::int as "quickFixes"
      from validation_note n join listing l on l.id = n.listing_id where ${coming(today)} group by n.kind`,
  );
  const first = (severity: Severity): number => (severity === 'error' ? 0 : 1);
  return rows.sort((a, b) => first(a.severity) - first(b.severity) || kindRank(a.kind) - kindRank(b.kind));
}

/** An open note with its listing. */
export interface OpenNote {
  listing_id: string;
  title: string;
  stage: Stage;
  key: string;
  severity: Severity;
  field: ValidationField;
  says: Saying;
  /** what its mend would do; null when there is none */
  quickFix: Saying | null;
  next_day: EpochDay | null;
}

/** The open notes of one kind, the next dates first. */
export async function readNotes(db: Db, kind: string, today: EpochDay, limit: number): Promise<OpenNote[]> {
  return jsonRows<OpenNote>(
    db,
    sql`select n.listing_id, l.title, l.stage, n.key, n.severity, n.field, n.says, n.quick_fix->'says' as "quickFix",
        (select min(o.start_day) from occurrence o where o.listing_id = l.id and o.last_day >= ${today}) as next_day
      from validation_note n join listing l on l.id = n.listing_id where n.kind = ${kind} and ${coming(today)}
      order by next_day nulls last, l.title, n.listing_id, n.key limit ${limit}`,
  );
}

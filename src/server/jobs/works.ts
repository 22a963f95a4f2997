/** Every kind of work that is done in the background. */
import { bulking, bulkUndoing } from '../bulk/run';
import type { JobKind } from '../db/schema';
import { importing, undoingImport } from '../exchange/import-jobs';
import { previewing } from '../exchange/import-preview';
import { rebuilding } from '../dates/rebuild';
import { validating } from '../validation/write';
import type { Work } from './runner';

/** The work of each kind of job. */
export const WORKS: Record<JobKind, Work> = {
  'import-preview': previewing,
  import: importing,
  'import-undo': undoingImport,
  horizon: rebuilding,
  rebuild: rebuilding,
  validation: validating,
  bulk: bulking,
  'bulk-undo': bulkUndoing,
};

/** Every kind of work that is done in the background. */
import { bulking, bulkUndoing } from '../bulk/run';
import type { JobKind } from '../db/schema';
import { bringing, takingBack } from '../exchange/import-jobs';
import { looking } from '../exchange/import-preview';
import { rebuilding } from '../dates/rebuild';
import { proofing } from '../validation/write';
import type { Work } from './runner';

export const WORKS: Record<JobKind, Work> = {
  look: looking,
  'bring-in': bringing,
  'take-back': takingBack,
  horizon: rebuilding,
  rebuild: rebuilding,
  proof: proofing,
  bulk: bulking,
  'bulk-undo': bulkUndoing,
};

/** Every kind of work that is done in the background. */
import { bulking, bulkUndoing } from '../bulk/run';
import type { JobKind } from '../db/schema';
import { bringing, takingBack } from '../exchange/bring-in';
import { looking } from '../exchange/looking';
import { rebuilding } from '../listings/rebuild';
import { proofing } from '../proof/write';
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

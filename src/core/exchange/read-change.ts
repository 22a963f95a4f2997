/** A changed date as our own table says it, read again: the inverse of `sayChange`, for what words can hold. */
import type { EventStatus } from '../recurrence/model';
import type { StoredChange } from '../recurrence/stored';

const EVENT_STATUS_SAID: Readonly<Record<string, EventStatus>> = {
  'goes ahead': 'going-ahead',
  'is cancelled': 'cancelled',
  'is postponed': 'postponed',
  'is rescheduled': 'rescheduled',
  'is moved online': 'moved-online',
};
const STANDS = Object.keys(EVENT_STATUS_SAID).join('|');

/**
 * `change` is null where the words say a date but nothing that a table holds of it; `lost` when they name a length or a place that only the
 * listing has. Undefined when they are no change. `moment` reads a day, with its time perhaps.
 */
export function readChange(
  text: string,
  moment: (words: string) => string | undefined,
): { change: StoredChange | null; lost: boolean } | undefined {
  const parts = new RegExp(`^(.*?) (?=moves to |is of another length|is elsewhere|has a note|${STANDS})(.*)$`, 's').exec(text.trim());
  const original = parts?.[1] === undefined ? undefined : moment(parts[1]);
  const rest = parts?.[2] ?? '';
  if (original === undefined) return undefined;
  const [, said = rest, note = ''] = /^(.*?): (.*)$/s.exec(rest) ?? [];
  const goes = /moves to (.*?)(?=$|,? (?:and )?(?:is |goes ))/.exec(said)?.[1];
  const movedTo = goes === undefined ? null : moment(goes);
  if (movedTo === undefined) return undefined;
  const eventStatus = EVENT_STATUS_SAID[new RegExp(STANDS).exec(said)?.[0] ?? ''] ?? null;
  const lost = /of another length|elsewhere/.test(said);
  const change = movedTo || eventStatus || note ? { original, movedTo, length: null, eventStatus, note: note.trim() } : null;
  return { change, lost };
}

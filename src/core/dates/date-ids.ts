/**
 * Ids of a listing's dates. A date's id is the original start that it had first, `2027-03-07T19:00`: so most dates need no memory of
 * theirs, and an index made anew has the same ids. Where a date was given another start since, or its start is the id of another, that is
 * kept as a name. Which dates go on as the same is decided in `same-dates.ts`.
 */
import { parseIsoDateTime } from '../day/plain-date-time';
import { matchDates } from './same-dates';

/** A start that does not follow from the id of its date. */
export interface DateName {
  dateId: string;
  original: string;
  /** the date had this start once; false = it has it now */
  former: boolean;
}

/** A date with the id that it keeps within its listing. */
export interface NamedDate {
  original: string;
  dateId: string;
}

/** The ids of a listing's dates after its repeats changed, and which ended. */
export interface Naming {
  /** the id of each date by its original start */
  ids: Map<string, string>;
  /** all names that are to be kept from now on */
  names: DateName[];
  /** dates that are no more */
  ended: NamedDate[];
}

/** An id for a date that begins at `original`, while others may still have the id that it would have. */
function freeId(original: string, taken: ReadonlySet<string>): string {
  for (let n = 1; ; n++) {
    const id = n === 1 ? original : `${original}~${n}`;
    if (!taken.has(id)) return id;
  }
}

const keyOf = ({ dateId, original }: Pick<DateName, 'dateId' | 'original'>): string => `${dateId} ${original}`;

/**
 * Names the dates that a listing has now.
 *
 * @param originals their original starts, each once
 * @param before the dates that it had, with their ids
 * @param names what was kept for it
 */
export function nameDates(originals: readonly string[], before: readonly NamedDate[], names: readonly DateName[]): Naming {
  const parsed = (original: string) => parseIsoDateTime(original) ?? { day: 0, minute: null };
  const match = matchDates(
    before.map(({ dateId, original }) => ({ id: dateId, original: parsed(original) })),
    originals.map(parsed),
  );
  const ids = new Map<string, string>();
  const alive = new Set(match.kept.values());
  // What a start was the name of last comes first, so that a date that comes back is the one that went.
  const formerly = new Map(names.filter(({ former }) => former).map(({ original, dateId }) => [original, dateId]));
  for (const original of originals) {
    const kept = match.kept.get(original);
    const past = formerly.get(original);
    const id = kept ?? (past !== undefined && !alive.has(past) ? past : freeId(original, alive));
    alive.add(id);
    ids.set(original, id);
  }
  // A date may also go back to a start that it had, however far away that is.
  const ended = before.filter(({ dateId }) => !alive.has(dateId));

  const all = new Map<string, DateName>();
  const startOf = new Map([...ids].map(([original, id]) => [id, original]));
  for (const { dateId, original } of [...names, ...before]) {
    if (startOf.get(dateId) === original) continue;
    // The id says the first start of a date by itself; it is a name only while the date has another.
    if (dateId === original && !startOf.has(dateId)) continue;
    all.set(keyOf({ dateId, original }), { dateId, original, former: true });
  }
  for (const [original, dateId] of ids) if (dateId !== original) all.set(keyOf({ dateId, original }), { dateId, original, former: false });
  return { ids, names: [...all.values()], ended };
}

/** Mornings, afternoons and evenings: which of them a date is in. Minutes count from midnight. */

/** The parts of the day that readers choose by, in their order. */
export const PARTS_OF_DAY = ['morning', 'afternoon', 'evening'] as const;
/** One of {@link PARTS_OF_DAY}. */
export type PartOfDay = (typeof PARTS_OF_DAY)[number];

const DAY = 1440;
/** When each begins and ends, in minutes; what comes before a morning belongs to the evening before. */
export const PART_SPANS: Record<PartOfDay, { from: number; to: number }> = {
  morning: { from: 300, to: 720 },
  afternoon: { from: 720, to: 1020 },
  evening: { from: 1020, to: 1740 },
};

/** All of them, as bits. */
export const ALL_PARTS = 0b111;

/** A part as a bit. */
export const partBit = (part: PartOfDay): number => 1 << PARTS_OF_DAY.indexOf(part);

/** When a date is, as much of it as this asks. */
export interface PartTimes {
  startDay: number;
  /** null = the whole day */
  startMinute: number | null;
  /** exclusive; null = no end is given */
  endDay: number | null;
  endMinute: number | null;
}

/** The parts of the day that a date is in, as bits: all of them for a whole day, that of its start where no end is given. */
export function partsOf({ startDay, startMinute, endDay, endMinute }: PartTimes): number {
  if (startMinute === null) return ALL_PARTS;
  const given = endDay === null ? 0 : (endDay - startDay) * DAY + (endMinute ?? 0);
  const end = Math.max(given, startMinute + 1);
  if (end - startMinute >= DAY) return ALL_PARTS;
  let bits = 0;
  for (const part of PARTS_OF_DAY) {
    const { from, to } = PART_SPANS[part];
    for (let shift = -DAY; shift <= DAY; shift += DAY) if (startMinute < to + shift && end > from + shift) bits |= partBit(part);
  }
  return bits;
}

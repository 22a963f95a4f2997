/** The small pictures that days carry. */
import type { DayMarks } from '@/core/holidays/day-marks';
import type { Db } from '../db/client';
import { type PictureRow, readPictures } from '../pictures/read';

/** The pictures of what the year says of some days, by their ids; those that are no more are not among them. */
export async function readMarkPictures(db: Db, marks: DayMarks): Promise<Map<string, PictureRow>> {
  const ids = new Set([...marks.values()].flatMap((all) => all.flatMap(({ picture }) => picture ?? [])));
  return ids.size ? readPictures(db, [...ids]) : new Map();
}

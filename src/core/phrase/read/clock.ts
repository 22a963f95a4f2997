/** A time field's text: `9`, `9am`, `09.00`, `0900`, `half past seven`, `noon`, `21h`. */
import { Cursor } from './cursor';
import { readTime } from './times';
import { tokensOf } from './tokens';

/**
 * Minutes since midnight, or undefined when the text is no time. An hour alone is that of the 24-hour clock; where it is the
 * end of something that starts later in the day, that of the afternoon: 9 after 19:00 is 21:00.
 */
export function readClock(text: string, after: number | null = null): number | undefined {
  if (text.length > 60) return undefined;
  const cursor = new Cursor(tokensOf(text));
  cursor.pass('at', '@');
  const time = readTime(cursor, true);
  if (!time || !cursor.done) return undefined;
  const later = time.minute + 720;
  return time.open && after !== null && time.minute <= after && later > after && later < 1440 ? later : time.minute;
}

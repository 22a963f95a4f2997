/** Is there room on the disk of the data folder? A site without room shows what it has and takes nothing new, until there is room again. */
import { statfsSync } from 'node:fs';

/** So many bytes stay free: enough for the database's own log, so that reading goes on. */
export const RESERVE = 64 * 1024 * 1024;
/** The disk is asked again after so long, in milliseconds. */
const ASK_EVERY = 1_000;

/** How many bytes are free for us on a folder's disk; infinite where that cannot be known. */
export function freeBytes(folder: string): number {
  try {
    const { bavail, bsize } = statfsSync(folder);
    return bavail * bsize;
  } catch {
    return Number.POSITIVE_INFINITY;
  }
}

/** Watches a folder's disk. */
export class Room {
  #askedAt = Number.NEGATIVE_INFINITY;
  #has = true;

  /**
   * @param free how many bytes are free now
   * @param turned is told when room runs out, and when there is room again
   * @param now milliseconds of a clock that only goes forward
   */
  constructor(
    private readonly free: () => number,
    private readonly turned: (has: boolean, free: number) => void = () => undefined,
    private readonly now: () => number = () => performance.now(),
    private readonly reserve = RESERVE,
  ) {}

  /** May something be written? */
  has(): boolean {
    if (this.now() - this.#askedAt < ASK_EVERY) return this.#has;
    this.#askedAt = this.now();
    const free = this.free();
    const has = free >= this.reserve;
    if (has !== this.#has) this.turned(has, free);
    this.#has = has;
    return has;
  }
}

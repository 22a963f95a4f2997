/**
 * The folder that a copy lies in. What changed is written beside it first and put in its place when all of it is there, so that a copy
 * that could not be finished leaves the one before as it was. Only what an earlier copy wrote is ever written over or taken away.
 */
import { createHash } from 'node:crypto';
import { existsSync } from 'node:fs';
import { mkdir, readdir, readFile, rename, rm, rmdir, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { z } from 'zod';
import { parseJson } from '@/core/text/clean';
import { Problem } from '../problem';
import { serverWords } from '@/words/desk';

const w = serverWords.plainFiles;

/** What was written, and how; beside the files themselves. */
export const LIST = '.plain-almanac-files.json';
const PART = '.plain-almanac-new';

/** How a copy was asked for. */
const asked = z.object({ url: z.string().optional(), server: z.string().optional(), months: z.number() });
const list = z.object({
  format: z.literal(1),
  asked,
  /** false while files are put in their places */
  whole: z.boolean(),
  /** when it was finished, in milliseconds; 0 = never */
  at: z.number(),
  files: z.record(z.string(), z.string()),
});

/** How a copy was asked for. */
export type Asked = z.infer<typeof asked>;
/** What lies in a folder. */
export type CopyList = z.infer<typeof list>;

/** What became of the files. */
export interface FolderReport {
  files: number;
  made: number;
  changed: number;
  removed: number;
}

/** What a folder says of the copy in it; undefined = there is none. @throws Problem where what it says cannot be read */
export async function readList(folder: string): Promise<CopyList | undefined> {
  const file = path.join(folder, LIST);
  if (!existsSync(file)) return undefined;
  try {
    return list.parse(parseJson(await readFile(file, 'utf8')));
  } catch {
    throw new Problem('conflict', w.listUnreadable({ file }));
  }
}

/** A folder while a copy is written into it. */
export class CopyFolder {
  readonly #files = new Map<string, { hash: string; staged: boolean }>();
  readonly #dirs = new Set<string>();

  private constructor(
    private readonly folder: string,
    /** what an earlier copy left there */
    readonly before: CopyList | undefined,
  ) {}

  /** @throws Problem where no folder can be made there */
  static async open(folder: string): Promise<CopyFolder> {
    try {
      await mkdir(folder, { recursive: true });
      const opened = new CopyFolder(folder, await readList(folder));
      await rm(opened.#staged(), { recursive: true, force: true });
      return opened;
    } catch (error) {
      if (error instanceof Problem) throw error;
      throw new Problem('conflict', w.noFolder({ folder }));
    }
  }

  #staged(file = ''): string {
    return path.join(this.folder, PART, file);
  }

  /** A file of the copy, by its name from the folder. @throws Problem where something else lies there that no copy wrote */
  async put(file: string, content: string | Buffer): Promise<void> {
    const body = typeof content === 'string' ? Buffer.from(content) : content;
    const hash = createHash('sha256').update(body).digest('base64url');
    const known = this.#files.get(file);
    if (known?.hash === hash) return;
    const there = await stat(path.join(this.folder, file)).catch(() => undefined);
    const old = this.before?.files[file];
    if (there && old === undefined) throw new Problem('conflict', w.notOurs({ file: path.join(this.folder, file) }));
    const staged = old !== hash || there?.size !== body.length;
    if (staged) {
      await this.#dir(path.dirname(this.#staged(file)));
      await writeFile(this.#staged(file), body);
    }
    this.#files.set(file, { hash, staged });
  }

  async #dir(dir: string): Promise<void> {
    if (this.#dirs.has(dir)) return;
    await mkdir(dir, { recursive: true });
    this.#dirs.add(dir);
  }

  /** Forgets what is no file of the copy after all. */
  keepOnly(files: ReadonlySet<string>): void {
    for (const file of this.#files.keys()) if (!files.has(file)) this.#files.delete(file);
  }

  /** Puts everything in its place. @param at when, in milliseconds */
  async finish(how: Asked, at: number): Promise<FolderReport> {
    const old = this.before?.files ?? {};
    const hashes = Object.fromEntries([...this.#files].sort(([a], [b]) => (a < b ? -1 : 1)).map(([file, { hash }]) => [file, hash]));
    const staged = [...this.#files].filter(([, one]) => one.staged).map(([file]) => file);
    const gone = Object.keys(old).filter((file) => !this.#files.has(file));
    // Whoever finds it half in place knows that all of these are the copy's own.
    await this.#write({ format: 1, asked: how, whole: false, at: this.before?.at ?? 0, files: { ...hashes, ...old } });
    // What pages show comes before them: nobody meets a page whose pictures are still to come.
    for (const file of staged.sort((a, b) => Number(a.endsWith('.html')) - Number(b.endsWith('.html')))) {
      await this.#dir(path.dirname(path.join(this.folder, file)));
      await rename(this.#staged(file), path.join(this.folder, file));
    }
    for (const file of gone) await this.#remove(file);
    await this.#write({ format: 1, asked: how, whole: true, at, files: hashes });
    await this.abandon();
    const changed = staged.filter((file) => old[file] !== undefined).length;
    return { files: this.#files.size, made: staged.length - changed, changed, removed: gone.length };
  }

  /** Leaves the folder as it was. */
  async abandon(): Promise<void> {
    await rm(this.#staged(), { recursive: true, force: true });
  }

  async #write(what: CopyList): Promise<void> {
    await mkdir(this.#staged(), { recursive: true });
    await writeFile(this.#staged(LIST), JSON.stringify(what, null, 1));
    await rename(this.#staged(LIST), path.join(this.folder, LIST));
  }

  /** A file of an earlier copy, and the folders that it leaves empty. */
  async #remove(file: string): Promise<void> {
    await rm(path.join(this.folder, file), { force: true });
    for (let dir = path.dirname(file); dir !== '.'; dir = path.dirname(dir)) {
      const full = path.join(this.folder, dir);
      if ((await readdir(full).catch(() => ['?'])).length) return;
      await rmdir(full);
    }
  }
}

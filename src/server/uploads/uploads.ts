/** Large files sent from a browser by the open protocol for resumable uploads (tus 1.0): a lost connection goes on where it was. */
import { existsSync } from 'node:fs';
import { mkdir, readdir, rename, rm, stat, statfs } from 'node:fs/promises';
import nodePath from 'node:path';
import { FileStore } from '@tus/file-store';
import { Server } from '@tus/server';
import { isId, newId } from '../db/ids';
import { log } from '../health/log';
import { inWords } from '../map/archive-file';
import { Problem } from '../problem';
import { serverWords } from '@/words/desk';

const w = serverWords.uploads;

/** Where files are sent to, from the site's own root. */
export const UPLOADS_PATH = '/api/v1/uploads';
/** No file is larger, in bytes. */
const MOST_BYTES = 20e9;
/** So much stays free on the disk, in bytes. */
const ROOM = 200e6;
/** What nobody went on with is taken away after so long, in milliseconds. */
const LEFT_AFTER = 48 * 3_600_000;

/** A file that has come whole. */
export interface SentFile {
  path: string;
  /** as it was called where it came from */
  name: string;
}

/** Files that are being sent, in the site's data folder. */
export class Uploads {
  readonly #folder: string;
  #server: Server | undefined;

  /** @param folder the site's data folder */
  constructor(folder: string) {
    this.#folder = nodePath.join(folder, 'uploads');
  }

  /** Answers one request of the protocol. */
  async handle(request: Request): Promise<Response> {
    const server = await this.#open();
    const response = await server.handleWeb(request);
    // The protocol's library opens itself to other sites; this is for our own pages alone.
    for (const name of [...response.headers.keys()]) if (name.startsWith('access-control-')) response.headers.delete(name);
    return response;
  }

  async #open(): Promise<Server> {
    if (this.#server) return this.#server;
    await mkdir(this.#folder, { recursive: true, mode: 0o700 });
    const datastore = new FileStore({ directory: this.#folder, expirationPeriodInMilliseconds: LEFT_AFTER });
    this.#server = new Server({
      path: UPLOADS_PATH,
      datastore,
      maxSize: MOST_BYTES,
      relativeLocation: true,
      namingFunction: () => newId(),
      onUploadCreate: async (_request, { size }) => {
        await this.tidy();
        const { bavail, bsize } = await statfs(this.#folder);
        const free = bavail * bsize - ROOM;
        if ((size ?? 0) > free) throw { status_code: 413, body: w.noRoom({ has: inWords(Math.max(0, free)), needs: inWords(size ?? 0) }) };
        return {};
      },
    });
    return this.#server;
  }

  /**
   * A file that has come whole, under its own name.
   * @throws Problem where there is none, or a part of it is still to come
   */
  async take(id: string): Promise<SentFile> {
    if (!isId(id)) throw new Problem('missing', w.gone());
    const server = await this.#open();
    const upload = await server.datastore.getUpload(id).catch(() => undefined);
    const there = nodePath.join(this.#folder, id);
    const { size } = await stat(there).catch(() => ({ size: -1 }));
    if (!upload || size < 0) throw new Problem('missing', w.gone());
    if (size !== upload.size) throw new Problem('conflict', w.notWhole({ has: inWords(size), of: inWords(upload.size ?? 0) }));
    // A name from elsewhere is a name and no path.
    const plain = (upload.metadata?.filename ?? '').replace(/[\\/:\0]/g, '-').slice(-120);
    const name = /[^.]/.test(plain) ? plain : 'file';
    const folder = nodePath.join(this.#folder, `taken-${id}`);
    await mkdir(folder, { recursive: true });
    const path = nodePath.join(folder, name);
    await rename(there, path);
    return { path, name };
  }

  /** Takes a sent file away, whatever became of it. */
  async discard(id: string): Promise<void> {
    if (!isId(id)) return;
    for (const name of [id, `${id}.json`, `taken-${id}`]) await rm(nodePath.join(this.#folder, name), { recursive: true, force: true });
  }

  /** Takes away what was sent in part and left. */
  async tidy(now = Date.now()): Promise<void> {
    if (!existsSync(this.#folder)) return;
    for (const name of await readdir(this.#folder)) {
      const path = nodePath.join(this.#folder, name);
      const found = await stat(path).catch(() => undefined);
      if (!found || now - found.mtimeMs < LEFT_AFTER) continue;
      log.info({ name }, 'A file that was sent in part and left is taken away');
      await rm(path, { recursive: true, force: true });
    }
  }
}

/** ZIP files: written entry by entry, there under their name when they are whole; read by the names of their entries. */
import { createWriteStream } from 'node:fs';
import { rename, rm } from 'node:fs/promises';
import { type PassThrough, Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { buffer } from 'node:stream/consumers';
import yauzl from 'yauzl';
import yazl from 'yazl';
import { Problem } from '../problem';

/** ZIP files carry a time for each of theirs: always the same, so that the same site is the same file. */
const NO_TIME = new Date(Date.UTC(1980, 0, 2));
const CANNOT_WRITE = new Set(['ENOENT', 'EACCES', 'ENOSPC', 'EISDIR', 'ENOTDIR', 'EROFS']);

/** A file of a ZIP file. */
export interface ZipEntry {
  name: string;
  /** it is compressed already */
  stored?: boolean;
  /** asked for when its turn comes, one after the other */
  read: () => Promise<Readable>;
}

/** Writes a ZIP file, readable by its owner only. Throws a Problem where the file cannot be written; nothing is left of it then. */
export async function writeZip(path: string, entries: readonly ZipEntry[]): Promise<void> {
  const unfinished = `${path}.part`;
  try {
    await pack(unfinished, entries);
    await rename(unfinished, path);
  } catch (error) {
    await rm(unfinished, { force: true });
    const { code } = error as NodeJS.ErrnoException;
    if (code && CANNOT_WRITE.has(code)) throw new Problem('invalid', `The file ${path} cannot be written (${code}).`);
    throw error;
  }
}

async function pack(path: string, entries: readonly ZipEntry[]): Promise<void> {
  const zip = new yazl.ZipFile();
  const packed = zip.outputStream as PassThrough;
  // What cannot be read ends the file, and a file that cannot be written ends the reading: yazl listens to neither.
  zip.on('error', (error: Error) => packed.destroy(error));
  let reading: Readable | undefined;
  packed.once('close', () => reading?.destroy());
  const written = pipeline(packed, createWriteStream(path, { mode: 0o600 }));
  const options = { mtime: NO_TIME, forceDosTimestamp: true, mode: 0o100600 };
  for (const { name, stored, read } of entries) {
    zip.addReadStreamLazy(name, stored ? { ...options, compress: false } : options, (ready) => {
      read().then(
        (stream) => {
          stream.on('error', (error) => packed.destroy(error));
          reading = stream;
          ready(null, stream);
        },
        (error: unknown) => ready(error, Readable.from([])),
      );
    });
  }
  zip.end();
  await written;
}

/** A ZIP file that is open. */
export interface OpenZip {
  has: (name: string) => boolean;
  /** an entry's bytes; undefined where there is none of that name, or one that says it is larger */
  bytes: (name: string, most: number) => Promise<Buffer | undefined>;
  /** an entry's bytes as they come; undefined where there is none of that name */
  stream: (name: string) => Promise<Readable | undefined>;
  close: () => void;
}

/** Opens a ZIP file. Throws a Problem where it is none. */
export async function openZip(file: string): Promise<OpenZip> {
  const unreadable = (error: unknown): Problem =>
    new Problem('invalid', `This ZIP file cannot be read: ${error instanceof Error ? error.message : 'it is broken'}.`);
  const zip = await yauzl.openPromise(file, { autoClose: false }).catch((error: unknown) => {
    throw unreadable(error);
  });
  const entries = new Map<string, yauzl.Entry>();
  try {
    for await (const entry of zip.eachEntry()) entries.set(entry.fileName, entry);
  } catch (error) {
    zip.close();
    throw unreadable(error);
  }
  const stream = async (name: string): Promise<Readable | undefined> => {
    const entry = entries.get(name);
    return entry && zip.openReadStreamPromise(entry);
  };
  return {
    has: (name) => entries.has(name),
    bytes: async (name, most) => {
      // yauzl ends a file that holds more than its entry says.
      const found = (entries.get(name)?.uncompressedSize ?? Number.POSITIVE_INFINITY) <= most ? await stream(name) : undefined;
      return found && buffer(found);
    },
    stream,
    close: () => zip.close(),
  };
}

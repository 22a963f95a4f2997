/** An archive as it lies on disk: one ZIP file, or its document with the folder of pictures beside it. */
import { open, readFile, stat } from 'node:fs/promises';
import path from 'node:path';
import { buffer } from 'node:stream/consumers';
import yauzl from 'yauzl';
import { ARCHIVE_DOCUMENT, PICTURE_FILE } from '@/core/exchange/archive';
import { parseJson } from '@/core/text/clean';
import { Problem } from '../problem';
import { MAX_PICTURE_BYTES } from '../pictures/take-in';

/** The document is read as one text. */
const MOST_DOCUMENT_BYTES = 400 * 1024 * 1024;

/** Where an archive is read from: its lists, entry by entry. */
export interface ArchiveSource {
  document: unknown;
  /** the bytes of a picture's file; undefined where the archive has none of that name, or one that is too large */
  picture: (file: string) => Promise<Buffer | undefined>;
  close: () => void;
}

/** Opens an archive. Throws a Problem that says what is wrong with the file. */
export async function openArchive(file: string): Promise<ArchiveSource> {
  const start = Buffer.alloc(4);
  try {
    const handle = await open(file);
    await handle.read(start, 0, 4, 0).finally(() => handle.close());
  } catch {
    throw new Problem('invalid', `The file ${file} cannot be read.`);
  }
  return start.toString('latin1') === 'PK\u0003\u0004' ? openZip(file) : openFolder(file);
}

function readDocument(text: string): unknown {
  try {
    return parseJson(text);
  } catch {
    throw new Problem('invalid', `This is no archive: its ${ARCHIVE_DOCUMENT} is no JSON.`);
  }
}

async function openFolder(file: string): Promise<ArchiveSource> {
  const { size } = await stat(file);
  if (size > MOST_DOCUMENT_BYTES) throw new Problem('invalid', 'The document is larger than 400 MB.');
  const document = readDocument(await readFile(file, 'utf8'));
  const picture = async (name: string): Promise<Buffer | undefined> => {
    if (!PICTURE_FILE.test(name)) return undefined;
    const at = path.join(path.dirname(file), name);
    const there = await stat(at).catch(() => undefined);
    return there?.isFile() && there.size <= MAX_PICTURE_BYTES ? readFile(at) : undefined;
  };
  return { document, picture, close: () => undefined };
}

async function openZip(file: string): Promise<ArchiveSource> {
  const zip = await yauzl.openPromise(file, { autoClose: false }).catch((error: Error) => {
    throw new Problem('invalid', `This ZIP file cannot be read: ${error.message}.`);
  });
  try {
    const entries = new Map<string, yauzl.Entry>();
    for await (const entry of zip.eachEntry()) entries.set(entry.fileName, entry);
    const bytesOf = async (name: string, most: number): Promise<Buffer | undefined> => {
      const entry = entries.get(name);
      // yauzl ends a file that holds more than its entry says.
      return entry && entry.uncompressedSize <= most ? buffer(await zip.openReadStreamPromise(entry)) : undefined;
    };
    const bytes = await bytesOf(ARCHIVE_DOCUMENT, MOST_DOCUMENT_BYTES);
    if (!bytes) throw new Problem('invalid', `This is no archive: it holds no ${ARCHIVE_DOCUMENT} of at most 400 MB.`);
    const document = readDocument(bytes.toString('utf8'));
    return {
      document,
      picture: async (name) => (PICTURE_FILE.test(name) ? bytesOf(name, MAX_PICTURE_BYTES) : undefined),
      close: () => zip.close(),
    };
  } catch (error) {
    zip.close();
    if (error instanceof Problem) throw error;
    throw new Problem('invalid', `This ZIP file cannot be read: ${error instanceof Error ? error.message : 'it is broken'}.`);
  }
}
